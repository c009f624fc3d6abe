/** Filters and what they leave: clean-up of a tank, filter ratio, pressure drop of an element, wear metals. */
import {
  cleanUpTime,
  correctedPressureDrop,
  countAfter,
  filterEfficiency,
  filtrationRatio,
  ingressFrom,
  steadyCount,
} from "../contamination/filter";
import { wearMetalAmounts } from "../contamination/wearMetal";
import { kinematicViscosity } from "../fluid/viscosity";
import { theilSen } from "../trend/theilSen";
import { formatNumber } from "../units/format";
import { calculator, figure, maybe, plain, quantity, rows, say, spaced } from "./types";

const count = (label: string, example: string) => quantity("count", example, { label });

const cleanUp = calculator({
  id: "clean-up",
  group: "cleanliness",
  title: "Cleaning up a tank",
  asks: "Where does the count settle, and how long until the target?",
  fields: {
    volume: quantity("volume", "400", { label: "Oil in the circuit", take: "volume" }),
    flow: quantity("flow", "60", { label: "Flow through the filter" }),
    beta: plain("Filtration ratio β", "200", 1.01, 1e6),
    ingress: quantity("ingress", "3000", { label: "Particles that enter" }),
    now: count("Count now", "40000"),
    goal: count("Target", "800"),
    loop: maybe("flow", { label: "Off-line loop of the same element" }),
  },
  compute(v) {
    const balance = { volume: v.volume, flow: v.flow + (v.loop ?? 0), beta: v.beta, ingress: v.ingress };
    const steady = steadyCount(balance);
    const time = cleanUpTime(balance, v.now, v.goal);
    const without = v.loop === null ? null : cleanUpTime({ ...balance, flow: v.flow }, v.now, v.goal);
    const span = time === null ? (8 * v.volume) / (balance.flow * filterEfficiency(v.beta)) : Math.max(1, 1.4 * time);
    return {
      answer:
        time === null
          ? say(
              { text: "Never with this filter.", strong: true },
              " More comes in than it takes: the count settles at ",
              figure(steady, "count"),
              ", above the target.",
            )
          : say(
              "The target is reached in ",
              figure(time / 60, "minutes", 3),
              " of running",
              ...(v.loop === null
                ? []
                : without === null
                  ? [" (never without the loop)"]
                  : [" (", figure(without / 60, "minutes", 3), " without the loop)"]),
              "; the count settles at ",
              figure(steady, "count"),
              ".",
            ),
      tone: time === null ? "bad" : "plain",
      notes: [
        "One well-mixed volume. Dirt that settles in dead legs comes out later: sample again after a day of running.",
      ],
      working: {
        formula: "V·dN/dt = R − Q·(1 − 1/β)·N",
        source: "Tank balance.",
        rows: [
          { label: "1 − 1/β", value: filterEfficiency(v.beta), digits: 4 },
          { label: "settles at R/(Q·η)", value: steady, quantity: "count", digits: 3 },
          {
            label: "time constant V/(Q·η)",
            value: v.volume / (balance.flow * filterEfficiency(v.beta)) / 60,
            quantity: "minutes",
            digits: 3,
          },
        ],
      },
      chart: {
        x: { label: "running", quantity: "minutes", least: 0 },
        y: { label: "particles", quantity: "count", log: true },
        series: [
          {
            label: "count",
            style: "line",
            points: spaced(0, span).map((t) => [t / 60, Math.max(0.01, countAfter(balance, v.now, t))]),
          },
        ],
        marks: [{ axis: "y", at: v.goal, label: "target", tone: "limit" }],
      },
    };
  },
});

const ratio = calculator({
  id: "filter-ratio",
  group: "cleanliness",
  title: "Filtration ratio",
  asks: "What does this element take out, from counts before and after it, and what dirt comes in?",
  fields: {
    before: count("Before the element", "2000"),
    after: count("After it", "10"),
    flow: quantity("flow", "60", { label: "Flow" }),
  },
  compute(v) {
    const beta = filtrationRatio(v.before, v.after);
    if (beta < 1) throw new RangeError("More after than before: the samples are swapped, or the element sheds dirt.");
    return {
      answer: say(
        "β ",
        { text: formatNumber(beta, beta < 10 ? 1 : 0), strong: true },
        `: it takes ${formatNumber(100 * filterEfficiency(beta), 2)} % in one pass. If the count before it is steady, `,
        figure(ingressFrom(v.before, v.flow, beta), "ingress"),
        " come in.",
      ),
      tone: beta < 75 ? "doubt" : "plain",
      notes: [
        "Counts at one size, taken together, machine at work. A flow that pulses lets more through than the rating says.",
      ],
      working: {
        formula: "β = N_before/N_after, 1 − 1/β; R = Q·(1 − 1/β)·N",
        source: "Definition of the filtration ratio (ISO 16889) and tank balance.",
        rows: [
          { label: "β", value: beta, digits: 3 },
          { label: "1 − 1/β", value: filterEfficiency(beta), digits: 4 },
          { label: "R", value: ingressFrom(v.before, v.flow, beta), quantity: "ingress", digits: 3 },
        ],
      },
    };
  },
});

const element = calculator({
  id: "filter-drop",
  group: "cleanliness",
  title: "Differential pressure of a filter",
  asks: "Is the element blocking, or is the oil just cold?",
  fields: {
    drop: quantity("pressureDrop", "2.2", { label: "As read" }),
    flow: quantity("flow", "55", { label: "Flow" }),
    temperature: quantity("oilTemperature", "28", { label: "Oil temperature" }),
    referenceFlow: quantity("flow", "60", { label: "Reference flow" }),
    referenceTemperature: quantity("oilTemperature", "50", {
      label: "Reference temperature",
      take: "referenceTemperature",
    }),
    kv40: quantity("viscosity", "46", { label: "Viscosity at 40 °C", take: "kv40" }),
    kv100: quantity("viscosity", "6.8", { label: "Viscosity at 100 °C", take: "kv100" }),
    housing: maybe("pressureDrop", { label: "Housing's part at the reference flow" }),
    limit: quantity("pressureDrop", "2.8", { label: "Change at" }),
  },
  compute(v) {
    const [nu, nuRef] = [kinematicViscosity(v, v.temperature), kinematicViscosity(v, v.referenceTemperature)];
    const corrected = correctedPressureDrop(
      { drop: v.drop, flow: v.flow, viscosity: nu },
      { flow: v.referenceFlow, viscosity: nuRef },
      v.housing ?? 0,
    );
    return {
      answer: say(
        "At the reference it is ",
        figure(corrected, "pressureDrop"),
        corrected >= v.limit
          ? ": change the element."
          : v.drop >= v.limit
            ? ": the oil is cold, the element is not blocked."
            : ": not blocked.",
      ),
      tone: corrected >= v.limit ? "bad" : corrected > 0.7 * v.limit ? "doubt" : "good",
      notes: ["A drop that falls by itself points to an open bypass or a torn element."],
      working: {
        formula: "Δp_ref = Δp·(Q_ref/Q)·(ν_ref/ν), the housing's part with Q²",
        source: "Laminar flow through the element; viscosity by ASTM D341.",
        rows: [
          { label: "ν", value: nu, quantity: "viscosity", digits: 4 },
          { label: "ν_ref", value: nuRef, quantity: "viscosity", digits: 4 },
          { label: "Δp_ref", value: corrected, quantity: "pressureDrop", digits: 3 },
        ],
      },
    };
  },
});

const metal = calculator({
  id: "wear-metal",
  group: "cleanliness",
  title: "Wear metal corrected for top-ups",
  asks: "How fast is metal made, once oil that was lost and topped up is put back into the sum?",
  fields: {
    volume: quantity("volume", "200", { label: "Oil in the circuit", take: "volume" }),
    samples: rows(
      "Samples",
      [
        { id: "hours", label: "Hours since the oil change" },
        { id: "ppm", label: "ppm" },
      ],
      "0 2\n500 9\n1000 14\n1500 21\n2000 24",
      3,
      "One a line: hours since the oil change, ppm.",
    ),
    events: rows(
      "Top-ups and losses",
      [
        { id: "hours", label: "Hours" },
        { id: "lost", label: "Litres lost" },
        { id: "added", label: "Litres added" },
        { id: "ppm", label: "New oil, ppm", optional: true },
      ],
      "700 20 20 1\n1700 30 30 1",
      0,
      "One a line: hours, litres lost, litres added, ppm of the new oil.",
    ),
  },
  compute(v) {
    const amounts = wearMetalAmounts(
      v.samples.map((s) => ({ hours: s.hours!, concentration: s.ppm! })),
      v.events.map((e) => ({ hours: e.hours!, lost: e.lost!, added: e.added!, newOil: e.ppm ?? 0 })),
      v.volume,
    );
    const line = (key: "raw" | "corrected") =>
      theilSen(
        amounts.map((a) => a.hours),
        amounts.map((a) => a[key]),
      );
    const [raw, corrected] = [line("raw"), line("corrected")];
    return {
      answer: say(
        "It makes ",
        { text: `${formatNumber(1000 * corrected.slope, 2)} ppm per 1000 h`, strong: true },
        ` (${formatNumber(1000 * corrected.low, 2)} to ${formatNumber(1000 * corrected.high, 2)}, 95 %); as ` +
          `read it looks like ${formatNumber(1000 * raw.slope, 2)}.`,
      ),
      tone: "plain",
      working: {
        formula: "M = V·C + Σ(lost·mean C) − Σ(added·C of the new oil), over V; slope by Theil-Sen",
        source: "Mass balance; Sen (1968).",
        rows: amounts.map((a) => ({ label: `at ${formatNumber(a.hours, 0)} h, ppm`, value: a.corrected, digits: 3 })),
      },
      chart: {
        x: { label: "hours since the oil change", quantity: "runningHours", least: 0 },
        y: { label: "ppm", least: 0 },
        series: [
          { label: "corrected", style: "line", points: amounts.map((a) => [a.hours, a.corrected]) },
          { label: "as read", style: "points", points: amounts.map((a) => [a.hours, a.raw]) },
        ],
      },
    };
  },
});

export const filtrationCalculators = [cleanUp, ratio, element, metal];
