/**
 * Eskermouth Harbour, an invented harbour authority: machines, circuits, components and points, and
 * what truly happens to each. Nothing here is a real place, person, maker or product.
 */
import { solubilityFrom } from "@core";
import type {
  AnalyteId,
  ComponentKind,
  FilterData,
  FluidType,
  LimitRule,
  Material,
  PointQuantityId,
  ReadingState,
  WearLaw,
} from "@core";

export interface PointPlan {
  name: string;
  quantity: PointQuantityId;
  state: ReadingState;
  /** Value as new at the reference condition, core units. */
  asNew: number;
  /** Noise: relative for flows and times, absolute share of as new for others. */
  noise: number;
  limit: LimitRule | null;
  reference?: { pressure: number; temperature: number };
  a?: number;
  b?: number;
  instrument?: string;
  conditions: string;
  /** The truth; "none" unless a story says otherwise. */
  truth?: {
    law: WearLaw;
    /** Multiple of as new at `crossesInDays` after the demo is loaded. */
    end: number;
    crossesInDays: number;
    change?: { daysAgo: number; factor: number };
  };
  /** A step at a date: multiplies all readings after it. */
  step?: { daysAgo: number; factor: number };
  /** The point has been read only for so many months. */
  months?: number;
}

export interface ComponentPlan {
  kind: ComponentKind;
  name: string;
  model: string;
  displacement?: number;
  speed?: number;
  maxPressure?: number;
  leadTimeDays?: number;
  points: PointPlan[];
  /** The part was replaced so many days ago. */
  replacedDaysAgo?: number;
  /** A filter: its elements were renewed so many days ago, oldest first, and what it is. */
  elements?: number[];
  filter?: FilterData;
  /** The newest element lets oil past: its drop is this share of what it should be. */
  past?: number;
  materials?: Material[];
  knownWhenNew?: boolean;
}

export interface MachinePlan {
  area: string;
  name: string;
  tag: string;
  round: string;
  hoursPerDay: number;
  circuit: string;
  pressure: number;
  fluid: string;
  temperature: { mean: number; swing: number; scatter: number; warming?: number };
  oil?: OilPlan;
  components: ComponentPlan[];
}

/** What truly happens to the oil of a circuit. */
export interface OilPlan {
  /** Volume, L. Samples every so many days. */
  volume?: number;
  everyDays?: number;
  /** Dirt came in: counts and wear go up by these factors and stay. */
  contamination?: { daysAgo: number; counts: number; metals: Partial<Record<AnalyteId, number>> };
  /** Dirt that was flushed out again, with what an off-line filter took out in minutes. */
  flushed?: { daysAgo: number; counts: number };
  /** Particles over 4 µm double in so many days since then. */
  silting?: { sinceDaysAgo: number; doublingDays: number };
  water?: { sinceDaysAgo: number; ppm: number };
  /** The wrong drum: litres of another fluid. */
  wrongFill?: { daysAgo: number; litres: number; fluid: string };
  /** A sample from the drain, that cannot be compared. */
  fromDrain?: number;
}

export const site = { name: "Eskermouth Harbour", timeZone: "Europe/London" };

const mineral = {
  type: "mineral" as FluidType,
  ...solubility({ ppm: 180, temperature: 20 }, { ppm: 600, temperature: 60 }),
  fresh: { acidNumber: 0.4, zinc: 450, phosphorus: 360, calcium: 60 },
};
const ester = {
  type: "ester" as FluidType,
  ...solubility({ ppm: 1500, temperature: 20 }, { ppm: 3600, temperature: 60 }),
  fresh: { acidNumber: 0.25, phosphorus: 120 },
};

export const fluidPlans = [
  { name: "Harbour mineral oil VG 46", kv40: 46, kv100: 6.8, density15: 875, ...mineral },
  { name: "Harbour mineral oil VG 32", kv40: 32, kv100: 5.4, density15: 870, ...mineral },
  { name: "Quayside ester VG 46", kv40: 47, kv100: 9.2, density15: 920, ...ester },
];

function solubility(...ends: Parameters<typeof solubilityFrom>) {
  const { a, b } = solubilityFrom(...ends);
  return { waterA: a, waterB: b };
}

export const people = [
  { name: "R. Oduya", signIn: "engineer", role: "engineer" as const },
  { name: "T. Wren", signIn: "technician", role: "technician" as const },
  { name: "K. Ferrin", signIn: "viewer", role: "viewer" as const },
];

export const instrumentPlans = [
  {
    tag: "F-07",
    name: "Turbine meter 20 L/min",
    quantity: "caseDrainFlow" as const,
    principle: "turbine" as const,
    fullScale: 20,
    accuracyClass: 1,
    leastReading: 0.3,
    viscosityLow: 5,
    viscosityHigh: 100,
  },
  {
    tag: "F-11",
    name: "Turbine meter 20 L/min",
    quantity: "caseDrainFlow" as const,
    principle: "turbine" as const,
    fullScale: 20,
    accuracyClass: 1,
    leastReading: 0.3,
    viscosityLow: 5,
    viscosityHigh: 100,
  },
  {
    tag: "P-02",
    name: "Gauge 250 bar",
    quantity: "pressure" as const,
    principle: "gauge" as const,
    fullScale: 250,
    accuracyClass: 1,
  },
  {
    tag: "P-05",
    name: "Gauge 400 bar",
    quantity: "pressure" as const,
    principle: "gauge" as const,
    fullScale: 400,
    accuracyClass: 1,
  },
  {
    tag: "P-09",
    name: "Gauge 10 bar",
    quantity: "pressure" as const,
    principle: "gauge" as const,
    fullScale: 10,
    accuracyClass: 1,
  },
  { tag: "T-01", name: "Infrared camera", quantity: "temperatureRise" as const, fullScale: 100, accuracyClass: 1 },
];
