/** Calculations about cylinders and held loads. */
import { leakFromCreep, leakFromDecay } from "../holding/decay";
import { holdingMargin } from "../holding/margin";
import { formatNumber } from "../units/format";
import { cautions } from "./cautions";
import { calculator, choice, figure, maybe, plain, quantity, say, spaced } from "./types";

const bore = quantity("bore", "125", { label: "Bore" });
const areaOf = (diameter: number) => (Math.PI / 4) * diameter ** 2;

const margin = calculator({
  id: "holding-margin",
  group: "cylinder",
  title: "Margin of a load-holding valve",
  asks: "How far is the valve that holds this load from opening by itself, and when would it?",
  caution: cautions.suspended,
  fields: {
    kind: choice("Valve", [
      { value: "pilotCheck", label: "pilot-operated check valve" },
      { value: "counterbalance", label: "counterbalance valve" },
    ]),
    load: quantity("loadPressure", "114", { label: "Pressure on the load side" }),
    opposite: quantity("loadPressure", "10", { label: "Pressure on the opposite side" }),
    loadArea: quantity("area", "8765", { label: "Area on the load side" }),
    oppositeArea: quantity("area", "12272", { label: "Area on the opposite side" }),
    ratio: plain("Pilot ratio", "4", 0.1, 100),
    pilot: choice("Pilot comes from", [
      { value: "opposite", label: "the opposite side" },
      { value: "outside", label: "a line of its own" },
    ]),
    setting: maybe("loadPressure", { label: "Setting (counterbalance)" }),
    back: maybe("loadPressure", { label: "Back pressure" }),
    rise: maybe("pressureFall", { label: "Opposite side rises by", example: "0.7" }),
    riseDoubt: maybe("pressureFall", { label: "Uncertainty of that", example: "0.1" }),
    rating: maybe("loadPressure", { label: "Rating of the load side", example: "250", take: "ratedPressure" }),
  },
  compute(v) {
    const found = holdingMargin(
      {
        loadPressure: v.load,
        oppositePressure: v.opposite,
        loadArea: v.loadArea,
        oppositeArea: v.oppositeArea,
        ...(v.rise !== null && { rise: { perMinute: v.rise, uncertainty: v.riseDoubt ?? 0.15 * v.rise } }),
        ...(v.rating !== null && { rating: v.rating }),
      },
      {
        kind: v.kind,
        ratio: v.ratio,
        pilot: v.pilot,
        ...(v.setting !== null && { setting: v.setting }),
        ...(v.back !== null && { backPressure: v.back }),
      },
    );
    const { opensAt, timeToOpening: time, loadPressureThere: there } = found;
    const minutes = (t: number) => (t >= 90 ? `${formatNumber(t / 60, 1)} h` : `${formatNumber(t, 0)} min`);
    const line =
      opensAt === null
        ? []
        : spaced(0, Math.max(opensAt * 1.3, v.opposite)).map((p): [number, number] => [
            p,
            found.loadTerm + found.areaRatio * p,
          ]);
    return {
      answer:
        opensAt === null
          ? say(
              { text: "Never by this path.", strong: true },
              ` The pilot ratio ${formatNumber(v.ratio, 1)} is not above the area ratio ` +
                `${formatNumber(found.areaRatio, 2)}: the load side climbs faster than the pilot.`,
            )
          : say(
              "It opens at ",
              figure(opensAt, "loadPressure"),
              ...(v.pilot === "opposite"
                ? [" on the opposite side, with ", figure(there!, "loadPressure"), " on the load side"]
                : [" of pilot pressure"]),
              ": margin ",
              figure(found.margin!, "loadPressure"),
              ".",
              ...(time === null
                ? []
                : time.p50 === 0
                  ? [{ text: " It opens now.", strong: true }]
                  : [
                      " At the rise measured it opens in ",
                      {
                        text: `${minutes(time.p10)} to ${time.p90 === null ? "never" : minutes(time.p90)}`,
                        strong: true,
                      },
                      ` (P10 to P90, middle ${minutes(time.p50)}).`,
                    ]),
            ),
      tone:
        found.overRating || (found.margin !== null && found.margin <= 0)
          ? "bad"
          : opensAt === null
            ? "good"
            : found.margin! < 0.3 * opensAt
              ? "doubt"
              : "plain",
      notes: [
        ...(found.overRating ? ["The load side passes its rating: an intensified pressure."] : []),
        ...(found.loadTerm < 0
          ? ["The balance gives a load that pushes the other way: check the areas and the gauges."]
          : []),
        "Both pressures rise together with a free constant load; they part only at an end stop, with friction or with a second cylinder.",
      ],
      working: {
        formula:
          v.kind === "pilotCheck"
            ? "p_l = F/A_l + φ·p_o; opens when R·(p_pilot − p_b) ≥ p_l − p_b"
            : "p_l = F/A_l + φ·p_o; opens when p_l + R·p_pilot ≥ setting + p_b·(1 + R)",
        source: "Force balance of the piston and of the valve's poppet.",
        rows: [
          { label: "φ = A_o/A_l", value: found.areaRatio, digits: 3 },
          { label: "F/A_l", value: found.loadTerm, quantity: "loadPressure", digits: 4 },
          ...(opensAt === null
            ? []
            : [
                { label: "opens at", value: opensAt, quantity: "loadPressure" as const, digits: 4 },
                { label: "load side then", value: there!, quantity: "loadPressure" as const, digits: 4 },
                { label: "margin", value: found.margin!, quantity: "loadPressure" as const, digits: 3 },
              ]),
        ],
        note: "Static: a shock or a movement opens it sooner.",
      },
      ...(line.length > 0 &&
        v.pilot === "opposite" && {
          chart: {
            x: { label: "opposite side", quantity: "loadPressure" as const, least: 0 },
            y: { label: "load side", quantity: "loadPressure" as const, least: 0 },
            series: [
              { label: "held load", style: "line" as const, points: line },
              { label: "now", style: "points" as const, points: [[v.opposite, v.load] as [number, number]] },
            ],
            marks: [
              { axis: "x" as const, at: opensAt!, label: "opens", tone: "limit" as const },
              ...(v.rating === null ? [] : [{ axis: "y" as const, at: v.rating, label: "rating" }]),
            ],
          },
        }),
    };
  },
});

const decay = calculator({
  id: "pressure-decay",
  group: "cylinder",
  title: "Leak from a falling pressure",
  asks: "How much leaks while a shut-in pressure falls, and how much of the fall is the oil cooling?",
  caution: cautions.suspended,
  fields: {
    volume: quantity("volume", "5", { label: "Oil shut in" }),
    fall: quantity("pressureFall", "1.9", { label: "Pressure falls by" }),
    drift: quantity("temperatureDrift", "-0.1", { label: "Oil warms by", hint: "Negative when it cools." }),
    modulus: quantity("bulkModulus", "14000", { label: "Bulk modulus" }),
    thermal: plain("Pressure per kelvin", "9", 0, 30, { suffix: "bar/K" }),
  },
  compute(v) {
    const { leak, byTemperature } = leakFromDecay({
      volume: v.volume,
      pressureFall: v.fall,
      temperatureRise: v.drift,
      bulkModulus: v.modulus,
      thermalPressure: v.thermal,
    });
    return {
      answer: say(
        "It leaks ",
        figure(leak, "leak"),
        "; ",
        figure(byTemperature, "pressureFall"),
        " of the fall is the oil's temperature.",
      ),
      tone: leak < 0 ? "doubt" : "plain",
      notes: [
        ...(leak < 0 ? ["Less than nothing: the temperature record or the volume is wrong."] : []),
        "Free air lowers the modulus much and makes the leak look smaller than it is. An accumulator left in makes the test invalid.",
      ],
      working: {
        formula: "Q = (V/K)·(|dp/dt| − what cooling explains)",
        source: "Compressibility; K 14 000 bar and 9 bar/K (common handbook values, memory).",
        rows: [
          { label: "by temperature", value: byTemperature, quantity: "pressureFall", digits: 3 },
          { label: "by leakage", value: v.fall - byTemperature, quantity: "pressureFall", digits: 3 },
          { label: "Q", value: leak, quantity: "leak", digits: 3 },
        ],
      },
    };
  },
});

const creep = calculator({
  id: "creep",
  group: "cylinder",
  title: "Leak from a creeping cylinder",
  asks: "How much oil does a load that sinks let through?",
  caution: cautions.suspended,
  fields: {
    bore,
    rod: maybe("bore", { label: "Rod", hint: "When the rod side holds the load." }),
    travel: quantity("creep", "2.5 mm", { label: "Crept by" }),
    time: quantity("minutes", "10", { label: "In a time of", unit: "min" }),
  },
  compute(v) {
    const area = areaOf(v.bore) - (v.rod === null ? 0 : areaOf(v.rod));
    if (!(area > 0)) throw new RangeError("The rod must be thinner than the bore.");
    if (!(v.time > 0)) throw new RangeError("The time must be above zero.");
    const speed = v.travel / 1000 / v.time;
    const leak = leakFromCreep(area, speed);
    return {
      answer: say("It lets ", figure(leak, "leak"), " through, creeping ", figure(speed, "creepSpeed"), "."),
      tone: "plain",
      notes: ["Isolate the load-holding valve to tell it from the piston seal."],
      working: {
        formula: "Q = A·v",
        source: "Plain hydrostatics.",
        rows: [
          { label: "A", value: area, quantity: "area", digits: 4 },
          { label: "v", value: speed, quantity: "creepSpeed", digits: 3 },
          { label: "Q", value: leak, quantity: "leak", digits: 3 },
        ],
      },
    };
  },
});

const stroke = calculator({
  id: "stroke-time",
  group: "cylinder",
  title: "Stroke time against flow",
  asks: "Is a slow cylinder starved, or does it lose oil?",
  fields: {
    bore,
    rod: maybe("bore", { label: "Rod", hint: "When it retracts." }),
    stroke: quantity("bore", "900", { label: "Stroke" }),
    time: quantity("strokeTime", "16", { label: "Took" }),
    flow: quantity("flow", "60", { label: "Flow that should arrive" }),
  },
  compute(v) {
    const area = areaOf(v.bore) - (v.rod === null ? 0 : areaOf(v.rod));
    if (!(area > 0)) throw new RangeError("The rod must be thinner than the bore.");
    if (!(v.time > 0)) throw new RangeError("The time must be above zero.");
    if (!(v.flow > 0)) throw new RangeError("The flow must be above zero.");
    const volume = (area * v.stroke) / 1e6;
    const taken = (volume / v.time) * 60;
    const should = (volume / v.flow) * 60;
    const short = v.flow - taken;
    return {
      answer: say(
        "It should take ",
        figure(should, "strokeTime"),
        " and took ",
        figure(v.time, "strokeTime"),
        short > 0.05 * v.flow ? ": " : ".",
        ...(short > 0.05 * v.flow
          ? [
              figure(short, "flow"),
              " does not move it. Measure the flow that arrives: if it is all there, it is lost across the piston; if not, the cylinder is starved.",
            ]
          : []),
      ),
      tone: short > 0.15 * v.flow ? "doubt" : "plain",
      working: {
        formula: "Q = A·s/t",
        source: "Plain hydrostatics.",
        rows: [
          { label: "volume swept", value: volume, quantity: "volume", digits: 3 },
          { label: "flow that moved it", value: taken, quantity: "flow", digits: 3 },
          { label: "time at full flow", value: should, quantity: "strokeTime", digits: 3 },
        ],
      },
    };
  },
});

export const cylinderCalculators = [margin, decay, creep, stroke];
