/** Tests read at a gauge or a meter: shut in, at rest, at a port, at the end of travel. Common practice; the maker's figures first. */
import { theilSen } from "../trend/theilSen";
import { formatNumber } from "../units/format";
import { calculator, figure, plain, quantity, rows, say } from "../calculators/types";
import { bandOutcome, PRACTICE } from "./band";

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
