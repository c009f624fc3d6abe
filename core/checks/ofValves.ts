/** Tests of a valve: how it answers, its spool in its bore, its coil. Common practice; the maker's figures first. */
import { formatNumber } from "../units/format";
import { calculator, choice, maybe, maybePlain, plain, rows, say } from "../calculators/types";
import { PRACTICE, yesNo } from "./band";

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
