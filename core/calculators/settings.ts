/** Settings of a circuit, and the vacuum bench. */
import { vacuumIndex } from "../instrument/vacuum";
import { settingsLadder, type Settings } from "../settings/ladder";
import { formatNumber } from "../units/format";
import { cautions } from "./cautions";
import { calculator, figure, maybe, maybePlain, quantity, rows, say } from "./types";

const bench = calculator({
  id: "vacuum-bench",
  group: "valve",
  title: "Valve bore on a vacuum bench",
  asks: "How tight is this bore, stated so that test benches can be compared?",
  fields: {
    read: quantity("vacuum", "17 inHg", { label: "Read at the port" }),
    open: quantity("vacuum", "5 inHg", { label: "Bench open" }),
    blocked: quantity("vacuum", "25 inHg", { label: "Bench blocked" }),
    pass: maybe("vacuum", { label: "Pass mark of this bench and port", example: "15 inHg" }),
  },
  compute(v) {
    const index = vacuumIndex(v.read, v);
    const mark = v.pass === null ? null : vacuumIndex(v.pass, v);
    const bad = mark !== null && index < mark;
    return {
      answer: say(
        "Index ",
        { text: formatNumber(index, 2), strong: true },
        " of 1",
        ...(mark === null
          ? ["."]
          : [`, the pass mark is ${formatNumber(mark, 2)}: `, { text: bad ? "it leaks." : "it holds.", strong: true }]),
      ),
      tone: mark === null ? "plain" : bad ? "bad" : "good",
      notes:
        index < 0 || index > 1.02
          ? ["Outside what the bench itself shows open and blocked: check the bench first."]
          : ["Read again where the probe may not have sealed. Measure the old part before the new one is fitted."],
      working: {
        formula: "(read − open)/(blocked − open)",
        source: "Common practice.",
        rows: [
          { label: "read", value: v.read, quantity: "vacuum" },
          { label: "index", value: index, digits: 3 },
        ],
      },
    };
  },
});

const ladder = calculator({
  id: "settings-ladder",
  group: "valve",
  title: "Ladder of settings",
  asks: "Do the pressure settings of this circuit lie in order, and far enough apart?",
  caution: cautions.settings,
  fields: {
    cutIn: maybe("loadPressure", { label: "Unloader cuts in" }),
    cutOut: maybe("loadPressure", { label: "Unloader cuts out" }),
    compensator: maybe("loadPressure", { label: "Compensator", example: "210" }),
    relief: quantity("loadPressure", "230", { label: "Relief valve", take: "reliefSetting" }),
    ratings: rows(
      "Ratings",
      [{ id: "pressure", label: "Pressure", quantity: "loadPressure" }],
      "280\n315\n350",
      1,
      "Of each hose, pipe and component that sees the pressure, one a line.",
    ),
    flow: maybe("flow", { label: "Flow of the pump", example: "65" }),
    gap: quantity("loadPressure", "15", { label: "Gap wanted below the relief", usual: true }),
    peak: maybe("loadPressure", { label: "Greatest peak seen" }),
    rate: maybePlain("Logged at", 0.01, 1e6, { suffix: "samples/s", example: "1000" }),
  },
  compute(v) {
    const settings: Settings = {
      relief: v.relief,
      ratings: v.ratings.map((r, i) => ({ name: `part ${i + 1}`, pressure: r.pressure! })),
      gap: v.gap,
      ...(v.cutIn !== null && { cutIn: v.cutIn }),
      ...(v.cutOut !== null && { cutOut: v.cutOut }),
      ...(v.compensator !== null && { compensator: v.compensator }),
      ...(v.flow !== null && { pumpFlow: v.flow }),
      ...(v.peak !== null && { peak: { pressure: v.peak, samplesPerSecond: v.rate ?? 0.01 } }),
    };
    const found = settingsLadder(settings);
    const worst = found.steps.find((s) => s.verdict === "wrong") ?? found.steps.find((s) => s.verdict === "small");
    return {
      answer: found.good
        ? say({ text: "In order.", strong: true }, " Every setting lies below the next, with room.")
        : say(
            { text: worst?.message ?? "A peak passes the lowest rating.", strong: true },
            ...(found.reliefHeat === null ? [] : [" That is ", figure(found.reliefHeat, "power"), " of heat."]),
          ),
      tone: found.good
        ? "good"
        : found.steps.some((s) => s.verdict === "wrong") || (found.peakOverRating ?? 0) > 0
          ? "bad"
          : "doubt",
      notes: [
        ...(found.peakOverRating !== null && found.peakOverRating > 0 ? ["The peak passes the lowest rating."] : []),
        ...(found.peakSeen
          ? []
          : ["A logger this slow does not see a peak of milliseconds: the true peak may be higher."]),
      ],
      working: {
        formula: "cut-in < cut-out or compensator < relief < lowest rating",
        source: "Common practice; heat p·Q/600.",
        rows: found.rungs.map((r) => ({ label: r.name, value: r.pressure, quantity: "loadPressure" })),
      },
      table: {
        head: ["from", "to", "gap", "verdict"],
        rows: found.steps.map((s) => [s.from.name, s.to.name, { value: s.gap, quantity: "loadPressure" }, s.message]),
      },
      chart: {
        x: { label: "", places: true },
        y: { label: "pressure", quantity: "loadPressure", least: 0 },
        series: [{ label: "settings", style: "steps", points: found.rungs.map((r, i) => [i, r.pressure]) }],
        marks: found.rungs.map((r) => ({
          axis: "y" as const,
          at: r.pressure,
          label: r.name.replace(/: part.*/, ""),
          ...(r.id === "rating" && { tone: "limit" as const }),
        })),
      },
    };
  },
});

export const settingsCalculators = [ladder, bench];
