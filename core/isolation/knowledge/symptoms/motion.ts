/** Symptoms of movement and holding. */
import { COMMON_PRACTICE, type Symptom } from "../types";

export const motionSymptoms = {
  slow: {
    label: "Actuator slow",
    seen: "The stroke takes longer than it should.",
    causes: {
      often: ["pump.worn", "throttle.blocked", "valve.stuck"],
      sometimes: [
        "inlet.blocked",
        "cylinder.piston",
        "flowControl.stuck",
        "pump.caseLeak",
        "drive.slips",
        "variable.stuckShort",
        "relief.setLow",
      ],
      seldom: [
        "motor.worn",
        "cylinder.binds",
        "line.squeezed",
        "relief.heldOpen",
        "drive.slow",
        "fluid.low",
        "fluid.thick",
        "inlet.air",
        "valve.worn",
        "filter.blocked",
        "unloader.seat",
      ],
      rare: ["fluid.thin", "loop.chargeLow", "loop.relief", "command.none", "relief.seat", "sequence.setLow"],
    },
    basis: COMMON_PRACTICE,
  },
  creeps: {
    label: "Load creeps",
    seen: "A held load sinks slowly.",
    causes: {
      often: ["holding.leaks", "cylinder.piston"],
      sometimes: ["valve.worn", "holding.released", "counterbalance.setLow"],
      seldom: ["holding.open", "cylinder.rod", "line.leaks", "valve.stuckOver"],
    },
    basis: COMMON_PRACTICE,
  },
  dropsLate: {
    label: "Load comes down at once after standing",
    seen: "It held for a while, then came down.",
    causes: {
      often: ["cylinder.piston"],
      sometimes: ["holding.released", "holding.open"],
      seldom: ["valve.worn", "holding.leaks", "counterbalance.setLow", "valve.stuckOver"],
    },
    basis: COMMON_PRACTICE,
  },
  noShift: {
    label: "Does not shift at all",
    seen: "Command given, nothing moves.",
    causes: {
      often: ["command.none", "valve.seized"],
      sometimes: ["command.coil", "valve.stuck"],
      seldom: [
        "reducing.setLow",
        "valve.stuckOver",
        "pump.cover",
        "holding.leaks",
        "fluid.low",
        "line.squeezed",
        "cylinder.binds",
      ],
    },
    basis: COMMON_PRACTICE,
  },
  harsh: {
    label: "Harsh or late shift",
    seen: "Answers late, or with a jerk.",
    causes: {
      often: ["valve.worn", "valve.stuck"],
      sometimes: ["reducing.setLow", "reducing.stuckOpen", "fluid.air"],
      seldom: [
        "fluid.dirt",
        "accumulator.gas",
        "fluid.thick",
        "throttle.blocked",
        "fluid.water",
        "counterbalance.setLow",
      ],
    },
    basis: COMMON_PRACTICE,
  },
  motorSlow: {
    label: "Motor slow or weak",
    seen: "Winch or drive turns slowly under load.",
    causes: {
      often: ["motor.worn", "pump.worn"],
      sometimes: ["pump.caseLeak", "relief.setLow", "valve.worn", "loop.chargeLow", "loop.relief"],
      seldom: [
        "valve.stuck",
        "relief.heldOpen",
        "drive.slips",
        "inlet.blocked",
        "variable.stuckShort",
        "variable.setLow",
        "fluid.thin",
        "loop.flushing",
        "servo.weak",
        "drive.slow",
        "relief.seat",
      ],
    },
    basis: COMMON_PRACTICE,
  },
  outOfTurn: {
    label: "Movements out of their order",
    seen: "The second actuator moves before the first has arrived.",
    causes: {
      often: ["sequence.setLow"],
      sometimes: ["sequence.seat", "cylinder.binds"],
      seldom: ["valve.stuck", "flowControl.stuck", "valve.worn", "check.leaks"],
    },
    basis: COMMON_PRACTICE,
  },
} as const satisfies Record<string, Symptom>;
