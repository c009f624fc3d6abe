/** Calculations of tests that need no model: a value in its band, a choice of what was seen. Common practice; the maker's figures first. */
import { theilSen } from "../trend/theilSen";
import { throttlingRise } from "../pump/flow";
import { formatNumber } from "../units/format";
import {
  calculator,
  choice,
  figure,
  maybe,
  maybePlain,
  plain,
  quantity,
  rows,
  say,
  type Outcome,
} from "../calculators/types";

const PRACTICE = "Common practice; the manufacturer's figure first.";
const yesNo = [
  { value: "yes", label: "yes" },
  { value: "no", label: "no" },
] as const;

/** Words for a value and its band. */
function bandOutcome(
  value: number,
  low: number | null,
  high: number | null,
  words: { below: string; within: string; above: string },
): Pick<Outcome, "tone"> & { said: string } {
  if (low !== null && value < low) return { tone: "bad", said: words.below };
  if (high !== null && value > high) return { tone: "bad", said: words.above };
  return { tone: "good", said: words.within };
}

export const shutIn = calculator({
  id: "shut-in",
  group: "pump",
  title: "Shut-in pressure",
  asks: "Does the pump with its control reach its pressure when the outlet is closed?",
  fields: {
    pressure: quantity("loadPressure", "205", { label: "Pressure reached" }),
    low: quantity("loadPressure", "195", { label: "Band from" }),
    high: quantity("loadPressure", "215", { label: "Band to" }),
    seconds: quantity("strokeTime", "12", { label: "Closed for" }),
  },
  compute(v) {
    const { tone, said } = bandOutcome(v.pressure, v.low, v.high, {
      below: "Below the band: the pump or its valves.",
      within:
        "In the band: the pressure control works, the trouble is more likely in the consumers. Delivery is not proved, since pressure is not flow.",
      above: "Above the band: the pressure control acts too late. Set it before anything else.",
    });
    return {
      answer: say({ text: said, strong: true }, " Read ", figure(v.pressure, "loadPressure"), "."),
      tone,
      working: {
        formula: "pressure against its band",
        source: PRACTICE,
        rows: [
          { label: "pressure", value: v.pressure, quantity: "loadPressure" },
          { label: "band from", value: v.low, quantity: "loadPressure" },
          { label: "to", value: v.high, quantity: "loadPressure" },
        ],
      },
    };
  },
});

export const fallAfterStop = calculator({
  id: "fall-after-stop",
  group: "pump",
  title: "Pressure after stopping",
  asks: "How slowly does the pressure fall when the pump stops?",
  fields: {
    series: rows(
      "Record",
      [
        { id: "seconds", label: "Seconds" },
        { id: "pressure", label: "Pressure", quantity: "loadPressure" },
      ],
      "0 200\n10 182\n20 166\n30 151\n60 114",
      3,
      "One a line: seconds after stopping, pressure.",
    ),
    half: plain("Half gone in at least", "40", 0.1, 1e5, { suffix: "s", hint: "What it did when it was good." }),
  },
  compute(v) {
    if (v.series.some((r) => !(r.pressure! > 0))) throw new RangeError("Every pressure must be above zero.");
    const slope = theilSen(
      v.series.map((r) => r.seconds!),
      v.series.map((r) => Math.log(r.pressure!)),
    ).slope;
    const half = slope < 0 ? Math.LN2 / -slope : 1e6;
    const fast = half < v.half;
    return {
      answer: say(
        half >= 1e6 ? "It does not fall." : `Half is gone in `,
        ...(half >= 1e6
          ? []
          : [
              { text: `${formatNumber(half, 0)} s`, strong: true },
              fast
                ? ": faster than when it was good. A check valve, a consumer or the pump leaks."
                : ": as slow as when it was good.",
            ]),
      ),
      tone: fast ? "bad" : "good",
      working: {
        formula: "half-life = ln 2/slope of ln p, by Theil-Sen",
        source: "Leakage through a fixed gap; Sen (1968).",
        rows: [{ label: "half-life, s", value: half, digits: 3 }],
      },
      chart: {
        x: { label: "seconds", least: 0 },
        y: { label: "pressure", quantity: "loadPressure", least: 0 },
        series: [{ label: "record", style: "points", points: v.series.map((r) => [r.seconds!, r.pressure!]) }],
      },
    };
  },
});

export const standbyLeakage = calculator({
  id: "standby-leakage",
  group: "pump",
  title: "Standby leakage",
  asks: "Which consumer takes what the pump delivers at idle?",
  fields: {
    all: quantity("flow", "4.2", { label: "Flow at the outlet, nothing blocked" }),
    blocked: rows(
      "With consumers blocked in turn",
      [
        { id: "number", label: "Consumer" },
        { id: "flow", label: "Flow left", quantity: "flow" },
      ],
      "1 4.0\n2 1.1\n3 0.6",
      1,
      "One a line: number of the consumer blocked (the others before it stay blocked), flow that is left.",
    ),
    most: quantity("flow", "2", { label: "Leakage of a good system" }),
  },
  compute(v) {
    let before = v.all;
    const taken = v.blocked.map((r) => {
      const share = before - r.flow!;
      before = r.flow!;
      return { number: r.number!, flow: share };
    });
    const worst = taken.reduce((a, b) => (b.flow > a.flow ? b : a));
    const bad = v.all > v.most;
    return {
      answer: say(
        "At idle it gives ",
        figure(v.all, "flow"),
        bad ? ". Most goes to " : ", as a good system does. Most of it goes to ",
        { text: `consumer ${formatNumber(worst.number, 0)}`, strong: true },
        " (",
        figure(worst.flow, "flow"),
        "); ",
        figure(before, "flow"),
        " is left with all blocked.",
      ),
      tone: bad ? "bad" : "good",
      notes: ["What is left with all blocked is the pump's own leakage into the line and the meter's uncertainty."],
      working: {
        formula: "flow before less flow after each is blocked",
        source: PRACTICE,
        rows: [
          { label: "nothing blocked", value: v.all, quantity: "flow", digits: 3 },
          ...taken.map((t) => ({
            label: `consumer ${formatNumber(t.number, 0)} takes`,
            value: t.flow,
            quantity: "flow" as const,
            digits: 3,
          })),
        ],
      },
    };
  },
});

export const testPort = calculator({
  id: "test-port",
  group: "valve",
  title: "Pressure at a test port",
  asks: "Does the pilot or clutch pressure reach its stated value, under load too?",
  fields: {
    unloaded: quantity("loadPressure", "30", { label: "Unloaded" }),
    loaded: quantity("loadPressure", "29", { label: "Under load" }),
    low: quantity("loadPressure", "26", { label: "Stated from" }),
    high: quantity("loadPressure", "34", { label: "Stated to" }),
  },
  compute(v) {
    const inBand = (p: number) => p >= v.low && p <= v.high;
    const said = !inBand(v.unloaded)
      ? v.unloaded < v.low
        ? "Low already unloaded: supply, setting or a large leak."
        : "Above what is stated: the setting."
      : v.loaded < v.low
        ? "Right unloaded, low under load: a spool stuck part-way, or a leak that opens under load."
        : inBand(v.loaded)
          ? "As stated, unloaded and under load."
          : "Above what is stated under load.";
    return {
      answer: say({ text: said, strong: true }),
      tone: inBand(v.unloaded) && inBand(v.loaded) ? "good" : "bad",
      working: {
        formula: "both pressures against the stated band",
        source: PRACTICE,
        rows: [
          { label: "unloaded", value: v.unloaded, quantity: "loadPressure" },
          { label: "under load", value: v.loaded, quantity: "loadPressure" },
        ],
      },
    };
  },
});

export const inletAndCase = calculator({
  id: "inlet-case",
  group: "pump",
  title: "Inlet and case pressure",
  asks: "Is the pump starved, or its case pressure too high?",
  fields: {
    inlet: quantity("vacuum", "90", { label: "Inlet vacuum" }),
    inletMost: quantity("vacuum", "250", { label: "At most" }),
    casePressure: quantity("pressure", "0.8", { label: "Case pressure" }),
    caseMost: quantity("pressure", "4", { label: "At most" }),
  },
  compute(v) {
    const [starved, pressed] = [v.inlet > v.inletMost, v.casePressure > v.caseMost];
    return {
      answer: say({
        text:
          starved && pressed
            ? "Starved, and case pressure too high."
            : starved
              ? "Starved: strainer, level, cold oil, inlet hose."
              : pressed
                ? "Case pressure too high: case line, filter, cooler, or a worn pump."
                : "Both are within their limits.",
        strong: true,
      }),
      tone: starved || pressed ? "bad" : "good",
      working: {
        formula: "each against its limit",
        source: PRACTICE,
        rows: [
          { label: "inlet vacuum", value: v.inlet, quantity: "vacuum" },
          { label: "case pressure", value: v.casePressure, quantity: "pressure", digits: 2 },
        ],
      },
    };
  },
});

export const endPeak = calculator({
  id: "end-peak",
  group: "cylinder",
  title: "Peak at the end of the stroke",
  asks: "How high does the pressure jump at the end of the stroke, and was it fast enough to be seen?",
  fields: {
    peak: quantity("loadPressure", "240", { label: "Peak" }),
    steady: quantity("loadPressure", "160", { label: "Before the end" }),
    rate: plain("Sampling rate", "1000", 0.1, 1e6, { suffix: "samples/s" }),
    rating: quantity("loadPressure", "280", { label: "Lowest rating of the line", take: "ratedPressure" }),
  },
  compute(v) {
    const slow = v.rate < 1000;
    const over = v.peak > v.rating;
    return {
      answer: say(
        "It jumps to ",
        figure(v.peak, "loadPressure"),
        `, ${formatNumber(v.peak / Math.max(v.steady, 1e-6), 1)} times the pressure before the end`,
        over
          ? ": above the lowest rating."
          : slow
            ? ": below the rating, but a logger this slow does not see a peak of milliseconds."
            : ": below the lowest rating.",
      ),
      tone: over ? "bad" : slow ? "doubt" : "good",
      working: {
        formula: "peak against rating, with its sampling rate",
        source: "Common practice: an end of stroke can double the pressure for milliseconds.",
        rows: [
          { label: "peak", value: v.peak, quantity: "loadPressure" },
          { label: "samples/s", value: v.rate, digits: 2 },
        ],
      },
    };
  },
});

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

export const response = calculator({
  id: "command-response",
  group: "valve",
  title: "Command against response",
  asks: "Does a proportional valve follow its command, and how wide is its hysteresis?",
  fields: {
    series: rows(
      "Up and down",
      [
        { id: "command", label: "Command, %" },
        { id: "answer", label: "Answer" },
      ],
      "0 0\n25 11\n50 24\n75 37\n100 50\n75 39\n50 27\n25 14\n0 1",
      4,
      "One a line: command in percent, pressure or flow that answers; once up, once down.",
    ),
    most: plain("Hysteresis at most", "8", 0.1, 100, { suffix: "%" }),
  },
  compute(v) {
    const top = v.series.reduce((best, r, i) => (r.command! > v.series[best]!.command! ? i : best), 0);
    const span = Math.max(...v.series.map((r) => r.answer!)) - Math.min(...v.series.map((r) => r.answer!));
    if (!(span > 0)) throw new RangeError("The answer does not move.");
    const up = v.series.slice(0, top + 1);
    const down = v.series.slice(top);
    const widths = up.flatMap((u) => {
      const d = down.find((r) => r.command === u.command);
      return d ? [Math.abs(d.answer! - u.answer!)] : [];
    });
    if (widths.length < 2) throw new RangeError("The same commands are needed on the way up and down.");
    const hysteresis = (100 * Math.max(...widths)) / span;
    const dead = up.find((r) => r.answer! > Math.min(...up.map((x) => x.answer!)) + 0.03 * span)?.command ?? 100;
    const bad = hysteresis > v.most;
    return {
      answer: say(
        "Hysteresis ",
        { text: `${formatNumber(hysteresis, 1)} %`, strong: true },
        bad ? ": it sticks, or its bore is worn. Look at the oil's cleanliness first." : ": it follows.",
        ` It first moves by ${formatNumber(dead, 0)} % of command.`,
      ),
      tone: bad ? "bad" : "good",
      working: {
        formula: "widest gap between up and down over the whole answer",
        source: PRACTICE,
        rows: [
          { label: "hysteresis, %", value: hysteresis, digits: 3 },
          { label: "whole answer", value: span, digits: 3 },
        ],
      },
      chart: {
        x: { label: "command, %", least: 0 },
        y: { label: "answer", least: 0 },
        series: [
          { label: "up", style: "line", points: up.map((r) => [r.command!, r.answer!]) },
          { label: "down", style: "dashed", points: down.map((r) => [r.command!, r.answer!]) },
        ],
      },
    };
  },
});

export const spool = calculator({
  id: "spool-spring",
  group: "valve",
  title: "Spool and spring by hand",
  asks: "Does the spool fall through its bore, and is the spring in its band?",
  fields: {
    falls: choice("The clean spool falls through its bore by its own weight", [
      { value: "yes", label: "yes" },
      { value: "sticks", label: "sticks at a point" },
      { value: "no", label: "no" },
    ]),
    scored: choice("Scored", [
      { value: "no", label: "no" },
      { value: "yes", label: "yes" },
    ]),
    suction: choice("Suction is felt when the closed bore is drawn apart", [
      { value: "yes", label: "yes" },
      { value: "no", label: "no" },
      { value: "not", label: "not tried" },
    ]),
    force: maybe("force", { label: "Spring force", example: "118" }),
    low: maybe("force", { label: "Band from", example: "110" }),
    high: maybe("force", { label: "to", example: "130" }),
  },
  compute(v) {
    const spring = v.force === null || v.low === null || v.high === null ? null : v.force >= v.low && v.force <= v.high;
    const said =
      v.scored === "yes"
        ? "Replace spool and bore as a set."
        : v.falls === "sticks"
          ? "A burr or varnish at that point: polish or clean it, and look for the dirt's source."
          : v.falls === "no"
            ? "It does not move freely: clean, then measure spool and bore."
            : v.suction === "no"
              ? "No suction: the bore holds little. Measure it on the vacuum bench."
              : "The spool is free and holds.";
    return {
      answer: say(
        { text: said, strong: true },
        spring === null
          ? ""
          : spring
            ? " The spring is in its band."
            : " The spring is outside its band: adjust once, then renew.",
      ),
      tone: v.scored === "yes" || v.falls !== "yes" || spring === false ? "bad" : v.suction === "no" ? "doubt" : "good",
      working: {
        formula: "qualitative, as seen",
        source: PRACTICE,
        rows: v.force === null ? [] : [{ label: "spring", value: v.force, quantity: "force" }],
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

export const solenoid = calculator({
  id: "solenoid",
  group: "valve",
  title: "Solenoid valve that does not shift",
  asks: "Is it the voltage, the coil or the spool?",
  fields: {
    voltage: maybePlain("Voltage at the plug", 0, 1000, { suffix: "V", example: "23.5" }),
    rated: plain("Rated voltage", "24", 1, 1000, { suffix: "V" }),
    magnet: choice("A steel rule is drawn to the coil", yesNo),
    shifts: choice("It shifts when driven from outside", yesNo),
  },
  compute(v) {
    const powered = v.voltage !== null && v.voltage >= 0.85 * v.rated;
    const said = !powered
      ? "No voltage, or too little: the electrical side first."
      : v.magnet === "no"
        ? "Voltage but no magnetism: the coil."
        : v.shifts === "yes"
          ? "The coil pulls and the valve shifts by hand: plunger, or the force is just too small. Look for varnish."
          : "The coil pulls and nothing shifts: the spool is seized. A control that reports a coil fault may be seeing this.";
    return {
      answer: say({ text: said, strong: true }),
      tone: "bad",
      notes: ["Valves that never move seize: note when it last moved, and plan to exercise it."],
      working: {
        formula: "voltage, then magnetism, then outside drive",
        source: PRACTICE,
        rows: v.voltage === null ? [] : [{ label: "share of rated voltage", value: v.voltage / v.rated, digits: 3 }],
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
