/** Tests by hand and eye: what weeps, what is warm, what slips, what the level shows. Common practice; the maker's figures first. */
import { throttlingRise } from "../pump/flow";
import { formatNumber } from "../units/format";
import { calculator, choice, figure, plain, quantity, rows, say } from "../calculators/types";
import { bandOutcome, PRACTICE, yesNo } from "./band";

export const weep = calculator({
  id: "weep",
  group: "cylinder",
  title: "Weep by port",
  asks: "Which seal weeps, and is it more than it may be?",
  fields: {
    port: choice("Port", [
      { value: "rod", label: "rod gland" },
      { value: "shaft", label: "shaft seal" },
      { value: "weepHole", label: "weep hole between two seals" },
      { value: "cover", label: "cover or flange" },
    ]),
    drops: quantity("weep", "3", { label: "Counted" }),
    most: quantity("weep", "10", { label: "At most" }),
    what: choice("It is", [
      { value: "oil", label: "oil" },
      { value: "water", label: "water" },
      { value: "both", label: "both" },
    ]),
  },
  compute(v) {
    const seals = {
      rod: "the rod seal",
      shaft: "the shaft seal",
      weepHole:
        v.what === "water"
          ? "the seal on the water side"
          : v.what === "oil"
            ? "the seal on the oil side"
            : "both seals",
      cover: "the gasket or O-ring of that cover",
    };
    const bad = v.drops > v.most;
    return {
      answer: say(
        { text: `It is ${seals[v.port]}`, strong: true },
        ", ",
        figure(v.drops, "weep", 2),
        bad ? ": renew it." : ": within what it may weep; count again.",
      ),
      tone: bad ? "bad" : v.what === "oil" ? "good" : "doubt",
      working: {
        formula: "the port tells which seal",
        source: PRACTICE,
        rows: [{ label: "drops", value: v.drops, quantity: "weep" }],
      },
    };
  },
});

export const heatSurvey = calculator({
  id: "heat-survey",
  group: "heat",
  title: "Heat along a circuit",
  asks: "Which component is hotter than its pressure drop explains?",
  fields: {
    oil: quantity("oilTemperature", "52", { label: "Oil in the line" }),
    parts: rows(
      "Parts",
      [
        { id: "number", label: "Part" },
        { id: "temperature", label: "Surface", quantity: "oilTemperature" },
        { id: "drop", label: "Intended pressure drop", quantity: "loadPressure", optional: true },
      ],
      "1 53\n2 61\n3 56 60\n4 52",
      2,
      "One a line: number of the part along the circuit, surface temperature, pressure that it throttles by right (relief at work, flow control).",
    ),
    emissivity: plain("Emissivity set", "0.95", 0.1, 1, { usual: true }),
  },
  compute(v) {
    const found = v.parts.map((p) => {
      const right = throttlingRise(p.drop ?? 0);
      return { number: p.number!, rise: p.temperature! - v.oil, right, excess: p.temperature! - v.oil - right };
    });
    const hot = found.filter((f) => f.excess > 5).sort((a, b) => b.excess - a.excess);
    return {
      answer:
        hot.length === 0
          ? say({ text: "None.", strong: true }, " Every part is within 5 K of what it has a right to.")
          : say(
              { text: `Part ${hot.map((h) => formatNumber(h.number, 0)).join(", part ")}`, strong: true },
              ": warmer than by right by ",
              figure(hot[0]!.excess, "temperatureDifference", 2),
              ". It passes oil while it should be shut, or more than it should.",
            ),
      tone: hot.length ? "bad" : "good",
      notes: [
        "Flow controls, relief valves at work and coils are warm in normal work. Compare with the same component of a peer before it is opened.",
      ],
      working: {
        formula: "surface − oil − Δp·(1 − α_v·T)/(ρ·c_p)",
        source: "Throttled oil; 5 K as the bound is common practice.",
        rows: found.map((f) => ({
          label: `part ${formatNumber(f.number, 0)}, excess`,
          value: f.excess,
          quantity: "temperatureDifference" as const,
          digits: 2,
        })),
      },
    };
  },
});

export const slipTorque = calculator({
  id: "slip-torque",
  group: "pump",
  title: "Slip torque of a drive",
  asks: "Does the drive hold before it slips?",
  fields: {
    torque: quantity("torque", "180", { label: "Slipped at" }),
    low: quantity("torque", "160", { label: "Band from" }),
    high: quantity("torque", "220", { label: "Band to" }),
    adjusted: choice("Adjusted before", yesNo),
  },
  compute(v) {
    const { tone, said } = bandOutcome(v.torque, v.low, v.high, {
      below:
        v.adjusted === "yes" ? "Below the band again: renew it." : "Below the band: adjust it once, then test again.",
      within: "In its band.",
      above: "Above the band: it no longer protects what it drives.",
    });
    return {
      answer: say({ text: said, strong: true }, " Slipped at ", figure(v.torque, "torque"), "."),
      tone,
      working: {
        formula: "torque against its band",
        source: PRACTICE,
        rows: [{ label: "torque", value: v.torque, quantity: "torque" }],
      },
    };
  },
});

export const hotLevel = calculator({
  id: "hot-level",
  group: "fluid",
  title: "Oil level, hot",
  asks: "Is the level right, read as it has to be read?",
  fields: {
    level: choice("Level", [
      { value: "in", label: "between the marks" },
      { value: "low", label: "below" },
      { value: "high", label: "above" },
    ]),
    temperature: quantity("oilTemperature", "50", { label: "Oil temperature" }),
    machineLevel: choice("Machine stands level", yesNo),
    stated: choice("Actuators in the stated position", yesNo),
    foam: choice("Foam or milky", [
      { value: "no", label: "no" },
      { value: "foam", label: "foam" },
      { value: "milky", label: "milky" },
    ]),
  },
  compute(v) {
    const valid = v.temperature >= 40 && v.machineLevel === "yes" && v.stated === "yes";
    const said = !valid
      ? "Not a level: read it hot, machine level, actuators in the stated position."
      : v.foam === "milky"
        ? "Water in the oil."
        : v.foam === "foam"
          ? "Air in the oil: inlet leak or level."
          : v.level === "in"
            ? "Right."
            : v.level === "low"
              ? "Low: find where it went before it is filled."
              : "High: it will foam and come out hot.";
    return {
      answer: say({ text: said, strong: true }),
      tone: !valid ? "doubt" : v.level === "in" && v.foam === "no" ? "good" : "bad",
      notes: ["Wipe the filler before it is opened. Fill only the fluid that the plate names."],
      working: {
        formula: "as seen, under its reading condition",
        source: PRACTICE,
        rows: [{ label: "oil", value: v.temperature, quantity: "oilTemperature" }],
      },
    };
  },
});
