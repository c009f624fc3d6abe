/** What goes into the judgement of an oil and what comes out of it. Plain objects in core units. */
import type { ConditionState } from "../state/state";
import type { VerdictPart } from "../state/verdictPart";
import type { ComponentFluidNeed } from "../fluid/suitability";
import type { WaterSolubility } from "../fluid/water";
import type { LeakChange, LeakSeries } from "./agreement";
import type { AnalyteId } from "./analytes";
import type { Cause } from "./causes";
import type { DropReading, ElementFinding } from "./element";
import type { MeasuredViscosity } from "../fluid/measured";
import type { FillAge, LongestFill, NamedFluid } from "./fill";
import type { Material, PartSuspect } from "./parts";
import type { RemarkMeaning } from "./remark";
import type { OilSample } from "./sample";
import type { PartSuits } from "./suits";
import type { CircuitTarget } from "./target";
import type { MetalAlarm, MetalPoint, OilMove } from "./wear";

export interface FilterData {
  /** Filtration ratio of the element and the size (µm(c)) that it is stated for. */
  beta: number;
  size: number;
  /** L/min through it, usually. */
  flow: number;
  /** Differential pressure at which its bypass opens, bar. */
  bypass: number;
  element: string;
}

export interface OilComponentInput {
  id: string;
  name: string;
  kind: string;
  makersCode: string | null;
  materials: readonly Material[];
  fluidNeed: ComponentFluidNeed | null;
  filter: FilterData | null;
  /** Lives of the part in its place, in time order; of a filter: its elements. */
  lives: readonly { id: string; startedAt: number; endedAt: number | null }[];
  /** Differential pressure readings of a filter, all lives, in time order. */
  drops: readonly (Omit<DropReading, "viscosity"> & { temperature: number | null; lifeId: string })[];
}

export interface OilInput {
  now: number;
  volume: number | null;
  workingPressure: number | null;
  hoursPerDay: number;
  /** Running hours at a moment. */
  hoursAt(at: number): number;
  targetSet: { code: string; reason: string } | null;
  fluid: (NamedFluid & { solubility: WaterSolubility | null; acidNew: number | null }) | null;
  temperatures: { start: number | null; working: number | null; hottest: number | null };
  /** Limits of metals as read, ppm, that the laboratory or the maker states; the typical ones where it has none. */
  metalLimits: Partial<Record<AnalyteId, number>>;
  /** Longest that a fill may stay in. */
  longest: LongestFill;
  /** In time order. */
  samples: readonly OilSample[];
  moves: readonly (OilMove & { fluidName: string; otherFluid: boolean; changeBackBy: number | null })[];
  components: readonly OilComponentInput[];
  leaks: readonly LeakSeries[];
  /** Rates of metals in peer circuits, ppm per 1000 h. */
  peerRates: Partial<Record<AnalyteId, readonly number[]>>;
}

export interface OilFinding {
  at: number | null;
  /** Until when, where it happened between two samples. */
  until: number | null;
  text: string;
  tone: "plain" | "doubt" | "bad";
  /** Point or component that it is about. */
  pointId?: string;
  componentId?: string;
}

export interface CountTrend {
  /** Years in which the count doubles; negative: halves. */
  doublingYears: number;
  p: number;
}

export interface OilAssessment {
  state: ConditionState;
  urgency: number;
  samples: number;
  lastAt: number | null;
  lastSampleId: string | null;
  code: string | null;
  target: CircuitTarget | null;
  /** Numbers over target, size by size. */
  over: (number | null)[];
  /**
   * Margin used by what is worst. Particles: 0 two numbers cleaner than the target, 1 at the target. Water, viscosity,
   * acid and age: 1 where the oil has to be dealt with.
   */
  margin: {
    value: number;
    low: number;
    high: number;
    before: number | null;
    of: "particles" | "water" | "viscosity" | "acid" | "age";
  } | null;
  verdict: VerdictPart[];
  /** What happened, in order. */
  findings: OilFinding[];
  step: { after: number; by: number; factor: number; size: "over4" | "over6" | "over14"; still: boolean } | null;
  /** Of counts over 4 and 14 µm. */
  trends: { over4: CountTrend | null; over14: CountTrend | null };
  metals: MetalAlarm[];
  suspects: PartSuspect[];
  suspectsNone: number;
  agreement: VerdictPart[] | null;
  leaks: LeakChange[];
  causes: Cause[];
  filters: (Omit<ElementFinding, "corrected"> & {
    componentId: string;
    name: string;
    daysLeft: { early: number; middle: number; late: number | null } | null;
  })[];
  /** Viscosity over stated at the working temperature, as a share; null: not measured since it was filled. */
  viscosityOff: number | null;
  measured: MeasuredViscosity[];
  water: {
    ppm: number;
    below: boolean;
    /** Percent of saturation at the working temperature, by the fluid's own figures; null: they are not known. */
    share: number | null;
    /** The same at the coldest usual temperature of the tank, by its own figures or its class's. */
    shareCold: number | null;
    coldest: number;
    ofClass: boolean;
    /** Far above what was usual: the middle of the samples before, ppm. */
    leap: { usual: number } | null;
  } | null;
  /** Of the newest sample, as written. */
  remark: { text: string; says: readonly RemarkMeaning[]; at: number } | null;
  /** The oil was changed then, and not sampled since; null: it was. */
  unsampled: number | null;
  suitability: PartSuits[];
  /** Of the fill that is in; null: none is on record. */
  age: FillAge | null;
  /** The series of each metal, for its chart. */
  metalPoints: Partial<Record<AnalyteId, MetalPoint[]>>;
  /** Newest rates by metal, for peers. */
  rates: Partial<Record<AnalyteId, number[]>>;
  /** Contamination that the wear forecast of this circuit's parts has to reckon with. */
  contamination: { at: number; factor: number } | null;
}
