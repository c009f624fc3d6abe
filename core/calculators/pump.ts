/** Calculations about pumps and motors. */
import { dynamicViscosity, kinematicViscosity } from "../fluid/viscosity";
import { correctLeakage } from "../leakage/correct";
import { caseFlowShare, hydraulicPower, theoreticalFlow, volumetricEfficiency } from "../pump/flow";
import { analyseLoadTest, type LoadVerdict } from "../pump/loadTest";
import { formatNumber } from "../units/format";
import { cautions } from "./cautions";
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
  spaced,
  type Outcome,
} from "./types";

const displacement = quantity("displacement", "45", { label: "Displacement", take: "displacement" });
const speed = quantity("speed", "1450", { label: "Speed", take: "speed" });
const percent = (value: number, decimals = 1) => `${formatNumber(value, decimals)} %`;

const theoretical = calculator({
  id: "pump-flow",
  group: "pump",
  title: "Theoretical flow and efficiency",
  asks: "What should this pump deliver, and what share of it does it give?",
  fields: {
    displacement,
    speed,
    flow: maybe("flow", { label: "Flow as measured", example: "61" }),
    pressure: maybe("loadPressure", { label: "At a pressure of", example: "210", take: "workingPressure" }),
  },
  compute({ displacement: d, speed: n, flow, pressure }) {
    const full = theoreticalFlow(d, n);
    const efficiency = flow === null ? null : volumetricEfficiency(flow, full);
    return {
      answer:
        efficiency === null
          ? say("It displaces ", figure(full, "flow", 4), " at this speed.")
          : say(
              "It displaces ",
              figure(full, "flow", 4),
              " and gives ",
              { text: percent(100 * efficiency), strong: true },
              " of it",
              ...(pressure === null ? ["."] : [" at ", figure(pressure, "loadPressure"), "."]),
            ),
      tone: "plain",
      notes:
        efficiency !== null && efficiency > 1.02
          ? ["More than it displaces: check the speed, the displacement setting and the meter."]
          : pressure === null && flow !== null
            ? ["An efficiency without its pressure says little: at no load a worn pump looks like a new one."]
            : [],
      working: {
        formula: "Q_t = V·n/1000, η_v = Q/Q_t",
        source: "Plain hydrostatics.",
        rows: [
          { label: "V", value: d, quantity: "displacement" },
          { label: "n", value: n, quantity: "speed" },
          { label: "Q_t", value: full, quantity: "flow", digits: 4 },
          ...(efficiency === null ? [] : [{ label: "Q/Q_t", value: efficiency, digits: 4 }]),
        ],
      },
    };
  },
});

const caseShare = calculator({
  id: "case-drain",
  group: "pump",
  title: "Case drain share",
  asks: "How worn does the case drain say this unit is?",
  caution: cautions.caseDrain,
  fields: {
    displacement,
    speed,
    flow: quantity("caseDrainFlow", "3.9", { label: "Case drain as read" }),
    temperature: quantity("oilTemperature", "56", { label: "Oil temperature" }),
    pressure: quantity("loadPressure", "205", { label: "Load pressure" }),
    referenceTemperature: quantity("oilTemperature", "50", {
      label: "Reference temperature",
      take: "referenceTemperature",
    }),
    referencePressure: quantity("loadPressure", "210", { label: "Reference pressure", take: "referencePressure" }),
    kv40: quantity("viscosity", "46", { label: "Viscosity at 40 °C", take: "kv40" }),
    kv100: quantity("viscosity", "6.8", { label: "Viscosity at 100 °C", take: "kv100" }),
    density15: quantity("density", "875", { label: "Density at 15 °C", take: "density15" }),
    limit: plain("Limit", "10", 0.1, 100, { suffix: "% of full flow" }),
  },
  compute(v) {
    const fluid = { kv40: v.kv40, kv100: v.kv100, density15: v.density15 };
    const full = theoreticalFlow(v.displacement, v.speed);
    const [mu, muRef] = [dynamicViscosity(fluid, v.temperature), dynamicViscosity(fluid, v.referenceTemperature)];
    const corrected = correctLeakage(
      { flow: v.flow, pressure: v.pressure, viscosity: mu },
      { pressure: v.referencePressure, viscosity: muRef },
    );
    const [raw, share] = [caseFlowShare(v.flow, full), caseFlowShare(corrected, full)];
    const at = (t: number) =>
      correctLeakage(
        { flow: corrected, pressure: v.referencePressure, viscosity: muRef },
        { pressure: v.pressure, viscosity: dynamicViscosity(fluid, t) },
      );
    return {
      answer: say(
        "Corrected to ",
        figure(v.referenceTemperature, "oilTemperature"),
        " and ",
        figure(v.referencePressure, "loadPressure"),
        " it is ",
        figure(corrected, "caseDrainFlow"),
        ", ",
        { text: percent(share), strong: true },
        ` of full flow (as read ${percent(raw)}); the limit is ${percent(v.limit)}.`,
      ),
      tone: share >= v.limit ? "bad" : share >= 0.6 * v.limit ? "doubt" : "good",
      notes: [
        "New: about 1 to 3 % of full flow; plan a change by about 10 % (common practice, the manufacturer's figure first).",
        "Not valid where flushing or charge flow enters the case.",
      ],
      working: {
        formula: "Q_ref = Q·(p_ref/p)^a·(μ/μ_ref)^b, a = b = 1 (laminar)",
        source: "Merritt, Hydraulic Control Systems (1967); viscosity by ASTM D341.",
        rows: [
          {
            label: "ν at the reading",
            value: kinematicViscosity(fluid, v.temperature),
            quantity: "viscosity",
            digits: 4,
          },
          { label: "μ at the reading", value: mu, quantity: "dynamicViscosity", digits: 4 },
          { label: "μ at the reference", value: muRef, quantity: "dynamicViscosity", digits: 4 },
          { label: "p_ref/p", value: v.referencePressure / v.pressure, digits: 4 },
          { label: "μ/μ_ref", value: mu / muRef, digits: 4 },
          { label: "Q_ref", value: corrected, quantity: "caseDrainFlow", digits: 3 },
          { label: "Q_t", value: full, quantity: "flow", digits: 4 },
        ],
      },
      chart: {
        x: { label: "oil", quantity: "oilTemperature" },
        y: { label: "case drain at this load", quantity: "caseDrainFlow", least: 0 },
        series: [
          {
            label: "the same wear at other temperatures",
            style: "line",
            points: spaced(20, 80).map((t) => [t, at(t)]),
          },
          { label: "as read", style: "points", points: [[v.temperature, v.flow]] },
        ],
      },
    };
  },
});

const tones: Record<LoadVerdict, Outcome["tone"]> = {
  good: "good",
  wear: "bad",
  inlet: "bad",
  wearAndInlet: "bad",
  notConclusive: "doubt",
};
const verdicts: Record<LoadVerdict, string> = {
  good: "Good.",
  wear: "Worn.",
  inlet: "Not wear: inlet, speed or displacement.",
  wearAndInlet: "Worn, and short of flow without load too.",
  notConclusive: "Not conclusive.",
};

const loadTest = calculator({
  id: "load-test",
  group: "pump",
  title: "Load test",
  asks: "Is the pump worn, or is it short of oil, speed or displacement?",
  caution: cautions.loadTest,
  fields: {
    displacement,
    speed,
    workingPressure: quantity("loadPressure", "210", { label: "Working pressure", take: "workingPressure" }),
    steps: rows(
      "Steps",
      [
        { id: "pressure", label: "Pressure", quantity: "loadPressure" },
        { id: "flow", label: "Flow", quantity: "flow" },
        { id: "temperature", label: "Oil", quantity: "oilTemperature", optional: true },
        { id: "speed", label: "Speed", quantity: "speed", optional: true },
      ],
      "10 63.4 46\n50 62.4 47\n90 61.4 47\n130 60.3 48\n170 59.2 49\n210 58.0 50",
      3,
      "One step a line: pressure, flow, oil temperature, speed. The last two may be left out.",
    ),
    meter: choice("Meter stands", [
      { value: "outlet", label: "in the pressure line" },
      { value: "tank", label: "after the relief valve, to tank" },
    ]),
    doubt: plain("Meter's standard uncertainty", "1", 0.05, 20, { suffix: "%", usual: true }),
    allowed: plain("Drop still good", "10", 0.5, 60, { suffix: "% of full flow", usual: true }),
    compensator: maybe("loadPressure", { label: "Compensator setting" }),
    kv40: quantity("viscosity", "46", { label: "Viscosity at 40 °C", take: "kv40" }),
    kv100: quantity("viscosity", "6.8", { label: "Viscosity at 100 °C", take: "kv100" }),
    density15: quantity("density", "875", { label: "Density at 15 °C", take: "density15" }),
    before: maybePlain("Leak conductance last time", 0, 1000, { hint: "G of an earlier test, L·mPa·s/(min·bar)" }),
  },
  compute(v) {
    const steps = v.steps.map((s) => ({
      pressure: s.pressure!,
      flow: s.flow!,
      ...(s.temperature !== null && { temperature: s.temperature }),
      ...(s.speed !== null && { speed: s.speed }),
    }));
    const found = analyseLoadTest(steps, {
      displacement: v.displacement,
      speed: v.speed,
      workingPressure: v.workingPressure,
      fluid: { kv40: v.kv40, kv100: v.kv100, density15: v.density15 },
      meter: v.meter,
      flowUncertainty: v.doubt / 100,
      allowedDrop: v.allowed,
      ...(v.compensator !== null && { compensatorPressure: v.compensator }),
    });
    const top = Math.max(v.workingPressure, ...steps.map((s) => s.pressure));
    const { drop, noLoadShare, conductance } = found;
    return {
      answer: say(
        { text: verdicts[found.verdict], strong: true },
        ` ${found.reason} From no load to `,
        figure(v.workingPressure, "loadPressure"),
        " it loses ",
        { text: percent(drop.value), strong: true },
        ` of full flow (${percent(drop.low)} to ${percent(drop.high)}, 95 %); without load it gives ${percent(100 * noLoadShare.value)} of it.`,
      ),
      tone: tones[found.verdict],
      notes:
        v.before === null
          ? []
          : [
              `Leak conductance was ${formatNumber(v.before, 3)}, is ${formatNumber(conductance.value, 3)}: ` +
                (v.before > 0 ? `${formatNumber(conductance.value / v.before, 2)} times` : "from nothing") +
                (v.before >= conductance.low && v.before <= conductance.high
                  ? ", within the uncertainty of this test."
                  : "."),
            ],
      working: {
        formula: `Q = Q_0·(n/n_ref)·(1 − p/K) − G·p/μ(T)${found.turbulent === null ? "" : " − H·√p"}, weighted least squares`,
        source: "Leak through clearances by Merritt (1967); K 14 000 bar (common handbook value, memory).",
        rows: [
          { label: "Q_t", value: found.theoretical, quantity: "flow", digits: 4 },
          { label: "Q_0", value: found.noLoadFlow.value, quantity: "flow", digits: 4 },
          { label: "Q_0/Q_t", value: noLoadShare.value, digits: 3 },
          { label: "G, L·mPa·s/(min·bar)", value: conductance.value, digits: 3 },
          { label: "G from (95 %)", value: conductance.low, digits: 3 },
          { label: "G to (95 %)", value: conductance.high, digits: 3 },
          ...(found.turbulent === null ? [] : [{ label: "H, L/(min·√bar)", value: found.turbulent, digits: 3 }]),
        ],
        note: found.steps.some((s) => s.left) ? "Steps where the compensator acts are left out." : "",
      },
      table: {
        head: ["pressure", "flow at the outlet", "by the fit", "remark"],
        rows: found.steps.map((s) => [
          { value: s.pressure, quantity: "loadPressure" },
          { value: s.flow, quantity: "flow", digits: 3 },
          { value: s.fitted, quantity: "flow", digits: 3 },
          s.left ?? "",
        ]),
      },
      chart: {
        x: { label: "pressure", quantity: "loadPressure", least: 0 },
        y: { label: "flow", quantity: "flow", least: 0 },
        series: [
          { label: "fit", style: "line", points: spaced(0, top * 1.05).map((p) => [p, found.flowAt(p)]) },
          { label: "steps", style: "points", points: found.steps.map((s) => [s.pressure, s.flow]) },
        ],
        marks: [
          { axis: "y", at: found.theoretical, label: "theoretical" },
          { axis: "x", at: v.workingPressure, label: "working pressure" },
          {
            axis: "y",
            at: Math.max(0, (found.noLoadShare.value - v.allowed / 100) * found.theoretical),
            label: `${percent(v.allowed, 0)} lost`,
            tone: "limit",
          },
        ],
      },
    };
  },
});

const shaftPower = calculator({
  id: "pump-power",
  group: "pump",
  title: "Power to drive a pump",
  asks: "What does the driver have to give, and will it carry a load test?",
  fields: {
    flow: quantity("flow", "60", { label: "Flow" }),
    pressure: quantity("loadPressure", "200", { label: "Pressure", take: "workingPressure" }),
    efficiency: plain("Overall efficiency", "85", 10, 100, { suffix: "%" }),
    driver: maybe("power", { label: "Driver's rated power", example: "30" }),
  },
  compute(v) {
    const hydraulic = hydraulicPower(v.pressure, v.flow);
    const shaft = hydraulic / (v.efficiency / 100);
    const over = v.driver !== null && shaft > v.driver;
    return {
      answer: say(
        "It takes ",
        figure(shaft, "power"),
        " at the shaft for ",
        figure(hydraulic, "power"),
        " in the oil",
        ...(v.driver === null ? ["."] : [over ? ": more than the driver gives." : ": the driver carries it."]),
      ),
      tone: over ? "bad" : "plain",
      working: {
        formula: "P = p·Q/600, P_shaft = P/η",
        source: "Plain hydrostatics.",
        rows: [
          { label: "P in the oil", value: hydraulic, quantity: "power", digits: 4 },
          { label: "η", value: v.efficiency / 100, digits: 3 },
          { label: "P at the shaft", value: shaft, quantity: "power", digits: 4 },
        ],
      },
    };
  },
});

export const pumpCalculators = [theoretical, caseShare, loadTest, shaftPower];
