/** Calculations about heat and power. */
import { hydraulicPower, throttlingRise } from "../pump/flow";
import { formatNumber } from "../units/format";
import { calculator, figure, maybe, plain, quantity, say } from "./types";

const throttling = calculator({
  id: "throttling",
  group: "heat",
  title: "Oil warmed by throttling",
  asks: "How much warmer should oil leave a valve that passes it?",
  fields: {
    pressure: quantity("loadPressure", "100", { label: "Pressure lost", take: "workingPressure" }),
    density: quantity("density", "870", { label: "Density", take: "density15" }),
    heat: plain("Specific heat", "1900", 500, 5000, { suffix: "J/(kg·K)" }),
    expansion: plain("Thermal expansion", "0.0007", 0, 0.002, { suffix: "1/K" }),
    temperature: quantity("oilTemperature", "40", { label: "Oil temperature" }),
    rise: maybe("temperatureRise", { label: "Rise as measured" }),
  },
  compute(v) {
    const rise = throttlingRise(v.pressure, {
      density: v.density,
      specificHeat: v.heat,
      expansion: v.expansion,
      temperature: v.temperature,
    });
    const excess = v.rise === null ? null : v.rise - rise;
    return {
      answer: say(
        "It should warm by ",
        figure(rise, "temperatureRise", 2),
        ...(excess === null
          ? ["."]
          : [
              excess > 0.25 * rise + 1
                ? ": measured is more, so look for another source of heat or another flow."
                : excess < -0.25 * rise - 1
                  ? ": measured is less, so not all the pressure is lost here, or the part is cooled."
                  : ": as measured.",
            ]),
      ),
      tone: excess !== null && Math.abs(excess) > 0.25 * rise + 1 ? "doubt" : "plain",
      working: {
        formula: "ΔT = Δp·(1 − α_v·T)/(ρ·c_p), T in K",
        source: "First law for a throttled liquid; common handbook values of a mineral oil.",
        rows: [
          { label: "1 − α_v·T", value: 1 - v.expansion * (v.temperature + 273.15), digits: 3 },
          { label: "ΔT", value: rise, quantity: "temperatureRise", digits: 3 },
        ],
        note: "The common 6 K per 100 bar leaves out expansion.",
      },
    };
  },
});

const leakHeat = calculator({
  id: "leak-heat",
  group: "heat",
  title: "Heat of a leak",
  asks: "How much power does an internal leak or an open relief valve turn into heat?",
  fields: {
    pressure: quantity("loadPressure", "200", { label: "Pressure across it", take: "workingPressure" }),
    flow: quantity("leakageFlow", "6", { label: "Leakage" }),
    cooler: maybe("power", { label: "Cooler's power" }),
    hours: plain("Hours a day", "12", 0, 24),
    cost: plain("Price of a kWh", "0.25", 0, 100),
  },
  compute(v) {
    const heat = hydraulicPower(v.pressure, v.flow);
    const yearly = heat * v.hours * 365;
    return {
      answer: say(
        "It makes ",
        figure(heat, "power"),
        " of heat, ",
        { text: `${formatNumber(yearly, 0)} kWh a year`, strong: true },
        ` (about ${formatNumber(yearly * v.cost, 0)} at that price)`,
        ...(v.cooler === null
          ? ["."]
          : [`, ${formatNumber((100 * heat) / Math.max(v.cooler, 1e-6), 0)} % of what the cooler takes.`]),
      ),
      tone: v.cooler !== null && heat > 0.3 * v.cooler ? "doubt" : "plain",
      working: {
        formula: "P = Δp·Q/600",
        source: "Plain hydrostatics.",
        rows: [{ label: "P", value: heat, quantity: "power", digits: 3 }],
      },
    };
  },
});

export const heatCalculators = [throttling, leakHeat];
