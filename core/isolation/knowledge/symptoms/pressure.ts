/** Symptoms of pressure and force. */
import { COMMON_PRACTICE, type Symptom } from "../types";

export const pressureSymptoms = {
  lowPressure: {
    label: "Low or no pressure everywhere",
    seen: "Every function is weak, and the gauge at the pump is low.",
    causes: {
      often: ["fluid.low", "relief.setLow", "drive.slips", "relief.heldOpen"],
      sometimes: ["inlet.blocked", "pump.worn", "flowControl.stuck", "unloader.seat", "variable.setLow", "inlet.air"],
      seldom: [
        "drive.slow",
        "pump.cover",
        "relief.spring",
        "relief.seat",
        "fluid.thin",
        "pump.caseLeak",
        "gauge.wrong",
        "valve.worn",
        "consumer.worn",
        "line.leaks",
      ],
      rare: ["drive.reversed", "pump.notFilled", "valve.stuckOver", "motor.worn", "sequence.seat"],
    },
    basis: COMMON_PRACTICE,
  },
  fadesUnderLoad: {
    label: "Right unloaded, fades under load",
    seen: "Moves empty; with load it slows, stalls or slips.",
    causes: {
      often: ["reducing.setLow", "valve.stuck", "pump.worn"],
      sometimes: ["drive.slips", "relief.setLow", "pump.caseLeak", "valve.worn", "cylinder.piston", "variable.setLow"],
      seldom: [
        "motor.worn",
        "relief.heldOpen",
        "relief.spring",
        "fluid.thin",
        "accumulator.gas",
        "unloader.seat",
        "consumer.worn",
        "reducing.stuckOpen",
      ],
      rare: ["drive.slow", "loop.relief", "loop.chargeLow", "command.none"],
    },
    basis: COMMON_PRACTICE,
  },
  failsHot: {
    label: "Right cold, fails hot",
    seen: "Good in the morning, weak or slow after an hour's work.",
    causes: {
      often: ["pump.worn", "pump.caseLeak", "valve.worn"],
      sometimes: ["fluid.thin", "cylinder.piston", "motor.worn", "consumer.worn"],
      seldom: ["cooler.fouled", "cooler.bypass", "holding.leaks", "command.coil", "unloader.seat"],
      rare: ["relief.seat", "fluid.low"],
    },
    basis: COMMON_PRACTICE,
  },
  erratic: {
    label: "Erratic, on and off",
    seen: "Now weak, now right, without a pattern.",
    causes: {
      often: ["relief.heldOpen", "flowControl.stuck", "fluid.air"],
      sometimes: ["fluid.dirt", "fluid.low", "inlet.air", "valve.stuck", "command.none"],
      seldom: [
        "variable.stuckShort",
        "throttle.blocked",
        "drive.slips",
        "unloader.stuck",
        "gauge.wrong",
        "fluid.water",
      ],
    },
    basis: COMMON_PRACTICE,
  },
  compensatorLow: {
    label: "Compensated pump stays below its pressure",
    seen: "Consumers blocked, the gauge stays below the compensator's value.",
    causes: {
      often: ["variable.setLow", "consumer.worn", "relief.setLow"],
      sometimes: ["variable.stuckShort", "unloader.seat", "valve.worn", "pump.caseLeak"],
      seldom: [
        "relief.heldOpen",
        "relief.seat",
        "relief.spring",
        "pump.worn",
        "pump.cover",
        "drive.slips",
        "gauge.wrong",
      ],
      rare: ["inlet.blocked", "drive.reversed"],
    },
    basis: COMMON_PRACTICE,
  },
  endOfStroke: {
    label: "Labours at the end of travel, hoses fail",
    seen: "Hoses burst or weep; a knock or a groan at the end of the stroke.",
    causes: {
      often: ["relief.high"],
      sometimes: ["line.leaks", "unloader.stuck"],
      seldom: ["line.squeezed", "reducing.stuckOpen", "cylinder.binds", "accumulator.gas"],
    },
    basis: COMMON_PRACTICE,
  },
  noPrime: {
    label: "Pump does not prime",
    seen: "Turns, but gives no flow after a start.",
    causes: {
      often: ["fluid.low", "pump.notFilled", "inlet.air"],
      sometimes: ["inlet.blocked", "drive.reversed", "fluid.thick"],
      seldom: ["pump.cover", "fluid.air"],
    },
    basis: COMMON_PRACTICE,
  },
  afterOilChange: {
    label: "Pressure lost at once after a change of oil",
    seen: "It was right before the oil was changed or filled up.",
    causes: {
      often: ["fluid.thin", "fluid.air"],
      sometimes: ["fluid.low", "inlet.air", "pump.notFilled"],
      seldom: ["filter.bypass", "inlet.blocked", "relief.heldOpen", "fluid.thick"],
    },
    basis: COMMON_PRACTICE,
  },
  pilotLow: {
    label: "Pilot or clutch pressure wrong",
    seen: "The test port of the pilot circuit is outside its value.",
    causes: {
      often: ["reducing.setLow", "reducing.stuckOpen"],
      sometimes: ["valve.stuck", "valve.worn", "accumulator.gas"],
      seldom: ["pump.worn", "relief.setLow", "filter.blocked", "gauge.wrong", "consumer.worn", "check.leaks"],
    },
    basis: COMMON_PRACTICE,
  },
  cyclesFast: {
    label: "Unloading valve cycles too fast, or never unloads",
    seen: "The gauge swings between cut-in and cut-out far more often than it did, or stays up.",
    causes: {
      often: ["accumulator.gas"],
      sometimes: ["check.leaks", "valve.worn", "relief.setLow", "unloader.stuck"],
      seldom: ["consumer.worn", "unloader.seat", "relief.heldOpen", "pump.worn", "relief.seat"],
    },
    basis: COMMON_PRACTICE,
  },
} as const satisfies Record<string, Symptom>;
