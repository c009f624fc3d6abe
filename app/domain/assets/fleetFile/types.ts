/** The fleet file as types: what its JSON Schema (schema.ts) lets in. */
import type {
  AnalyteId,
  ComponentFluidNeed,
  FiledCircuit,
  FilterData,
  FluidType,
  LimitBasis,
  Material,
  PointQuantityId,
  Principle,
  ReadingState,
} from "@core";

/** Since when something is out of use. */
interface Retirable {
  retiredAt?: string;
}
export interface FleetFile {
  format: "juncteral-fleet";
  version: 1;
  fluids?: FleetFluid[];
  instruments?: FleetInstrument[];
  sites: FleetSite[];
}
export interface FleetFluid extends Retirable {
  name: string;
  kv40: number;
  kv100: number;
  density15: number;
  type?: FluidType;
  waterA?: number | null;
  waterB?: number | null;
  fresh?: Partial<Record<AnalyteId, number>>;
}
export interface FleetInstrument extends Retirable {
  tag: string;
  name: string;
  quantity: PointQuantityId;
  fullScale: number;
  accuracyClass: number;
  principle?: Principle;
  leastReading?: number | null;
  viscosityLow?: number | null;
  viscosityHigh?: number | null;
  note?: string;
  calibratedAt?: string;
  calibrationDueAt?: string;
  checks?: {
    at: string;
    kind: "calibration" | "check";
    points: { stated: number; read: number }[];
    passed: boolean;
    certificate?: string;
    note?: string;
    by?: string;
  }[];
  recalls?: { fromAt: string; untilAt: string; reason: string; by?: string }[];
}
export interface FleetSite extends Retirable {
  name: string;
  timeZone: string;
  /** Settings; left out: as a new site has them. */
  holdsReleased?: boolean;
  twoSignatures?: boolean;
  nextChanceDays?: number;
  acceptedPercent?: number;
  stops?: (Retirable & {
    name: string;
    startsOn: string;
    days?: number;
    crewHours?: number;
    electricianHours?: number;
    machineTags?: string;
  })[];
  rounds?: {
    name: string;
    intervalDays?: number;
    intervalHours?: number | null;
    closer?: boolean;
    walkedBy?: string;
    points: { code: string; state: ReadingState; site?: string }[];
  }[];
  machines?: FleetMachine[];
}
export interface FleetMachine extends Retirable {
  name: string;
  tag: string;
  area?: string;
  hoursPerDay?: number;
  dutyDeviation?: number;
  note?: string;
  hourMeter?: {
    at: string;
    kind: "replaced" | "reset" | "corrected";
    before: number;
    after: number;
    note?: string;
    by?: string;
  }[];
  circuits?: FleetCircuit[];
}
export interface FleetCircuit extends Retirable {
  name: string;
  fluid?: string | null;
  workingPressure?: number | null;
  volume?: number | null;
  startTemperature?: number | null;
  longestHours?: number | null;
  longestMonths?: number | null;
  targetCode?: string;
  targetReason?: string;
  targetSetBy?: string;
  metalLimits?: Partial<Record<AnalyteId, number>>;
  diagram?: FiledCircuit;
  components?: FleetComponent[];
}
/** One part in its place; the part that is in it now stands at the component itself. */
export interface FleetLife {
  fittedAt: string;
  fittedHours?: number;
  endedAt: string;
  endHours?: number | null;
  endReason?: string | null;
  serial?: string;
  knownWhenNew?: boolean;
}
export interface FleetComponent extends Retirable {
  name: string;
  kind: string;
  tag?: string;
  model?: string;
  note?: string;
  position?: number;
  displacement?: number | null;
  speed?: number | null;
  maxPressure?: number | null;
  leadTimeDays?: number | null;
  partCost?: number | null;
  failureCost?: number | null;
  sparesOnHand?: number;
  exerciseDays?: number | null;
  runInHours?: number;
  fittedAt?: string;
  fittedHours?: number;
  serial?: string;
  knownWhenNew?: boolean;
  earlierLives?: FleetLife[];
  makersCode?: string;
  materials?: Material[];
  symptomIfStuck?: string;
  fluidNeed?: ComponentFluidNeed | null;
  filter?: (Omit<FilterData, "element"> & { element?: string }) | null;
  points?: FleetPoint[];
}
export interface FleetPoint extends Retirable {
  name: string;
  quantity: PointQuantityId;
  state: ReadingState;
  tag?: string;
  unit?: string;
  intervalDays?: number;
  referencePressure?: number | null;
  referenceTemperature?: number | null;
  makersNew?: number | null;
  /** Tag of the usual instrument. */
  instrument?: string | null;
  limit?: {
    basis: LimitBasis;
    upper?: number | null;
    lower?: number | null;
    reason?: string;
    setBy?: string;
    setAt?: string;
  } | null;
  conditions?: string;
}
