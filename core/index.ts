/** The public face of the computation. The application imports from here and nowhere else in core. */
export { DAY, HOUR, MONTH, YEAR } from "./units/time";
export { convert, findUnit, fromCore, toCore, unitsOf, type Unit } from "./units/units";
export { isPointQuantity, pointQuantityIds, quantities, quantityOf } from "./units/quantities";
export { readingStateIds, readingStates } from "./units/readingStates";
export type { PointQuantityId, QuantityId } from "./units/quantities";
export type { ReadingState } from "./units/readingStates";
export { preferableDimensions, preferredUnit, readerFigure, validPreference } from "./units/preference";
export type { UnitPreference } from "./units/preference";
export { parseNumber, parseQuantity } from "./units/parse";
export type { ParsedQuantity } from "./units/parse";
export { decimalsFor, formatNumber, formatQuantity, lowerFirst } from "./units/format";
export { dynamicViscosity, kinematicViscosity, viscosityTemperatureSensitivity } from "./fluid/viscosity";
export type { Fluid } from "./fluid/viscosity";
export { fluidTypeIds, fluidTypes } from "./fluid/suitability";
export type { ComponentFluidNeed, FluidType } from "./fluid/suitability";
export { solubilityFrom } from "./fluid/water";
export { hydraulicPower, theoreticalFlow } from "./pump/flow";
export { isFarReference, usualCondition, type UsualCondition } from "./leakage/reference";
export { annularLeakage, orificeFlow } from "./leakage/gaps";
export { instrumentFitness } from "./instrument/fitness";
export type { InstrumentFitness } from "./instrument/fitness";
export { countsOfCode, iso4406Bounds, parseIso4406 } from "./contamination/iso4406";
export { as4059Table, nas1638Table } from "./contamination/classes";
export { overTarget } from "./contamination/target";
export { cleanUpTime, countAfter, ingressFrom } from "./contamination/filter";
export type { TankBalance } from "./contamination/filter";
export { cusum } from "./change/cusum";
export { ewma } from "./change/ewma";
export { weibullFit, type Life, type WeibullFit } from "./lives/weibull";
export { ageReplacement, type AgeReplacement } from "./lives/ageReplacement";
export { solvePlan } from "./plan/solve";
export { openingOf, prepare as preparePlan } from "./plan/blocks";
export { helpsOf, type PlanHelp } from "./plan/helps";
export { linesOf, type PlanLine } from "./plan/lines";
export { valueOf as planValue, type PlanValue } from "./plan/value";
export { hoursOf, optionsOf } from "./plan/options";
export { costsOfKind, usualCosts, usualHours } from "./plan/usual";
export { noWishes, tradeIds, trades } from "./plan/types";
export type { CrewHours, PlanCosts, PlanPiece, PlanProblem, PlanStop, PlanTrouble, Wishes } from "./plan/types";
export { moneyText, optionName, readAgainBy, reasonOf, type PlanWriter } from "./plan/words";
export { addDays, calendarDay, dayOf, daysBetween, dayStart, isDay } from "./units/day";
export { partAgainstStop, partReadyOn, type PartAnswer } from "./plan/part";
export {
  pieceOf,
  reasonsIn,
  type PieceComponent,
  type PieceFacts,
  type PieceFault,
  type PiecePoint,
  type PieceWork,
} from "./plan/piece";
export { questionHours } from "./hours/question";
export { CLOCK_SLACK, fittedAt, NOT_FITTED, readingProblems } from "./readings/rules";
export { physicallyOdd, physicsQuestion, type KnownOfCircuit } from "./readings/physics";
export { meterOffset, runningHours, type MeterChange } from "./hours/runningHours";
export { limitBases, limitBasisIds, limitProblem, resolveLimits } from "./baseline/limit";
export type { LimitBasis, LimitRule } from "./baseline/limit";
export { excess, sidesOf } from "./baseline/margin";
export { sameMonthOf } from "./baseline/sameMonth";
export { theilSen } from "./trend/theilSen";
export { mannKendall } from "./trend/mannKendall";
export { weightedLine } from "./trend/weightedLine";
export { median, robustSpread } from "./trend/robust";
export { firstPassageCdf, firstPassageQuantile } from "./forecast/firstPassage";
export { defaultPrior, learnPrior } from "./forecast/prior";
export type { PeerLife, WearPrior } from "./forecast/prior";
export { pathLabel } from "./forecast/wearPath";
export { explainGauges, type Explanation } from "./isolation/explain";
export { pointsOff } from "./isolation/tried";
export { actText, faultsText } from "./isolation/text";
export { actsNow, standingDiagnosis } from "./isolation/standing";
export type { NamedFault, NoDiagnosis, StandingDiagnosis } from "./isolation/standing";
export { causes, type CauseId } from "./isolation/knowledge/causes";
export { symptomGroups, symptomIds, symptoms, type SymptomId } from "./isolation/knowledge/symptoms";
export { tests as isolationTests, type TestId } from "./isolation/knowledge/tests";
export {
  preparations,
  risks,
  type Preparation,
  type Rank as IsolationRank,
  type Test as IsolationTest,
} from "./isolation/knowledge/types";
export { testAtOf } from "./isolation/predicted";
export { parts as isolationParts, type PartId } from "./isolation/knowledge/parts";
export { grades, ranks, type Grade } from "./isolation/knowledge/types";
export { gaugeEvidence, type GaugeEvidence } from "./isolation/evidence";
export {
  beginCase,
  oddsOf,
  type Doubts,
  type IsolationCase,
  type Odds,
  type TestAt,
  type TestResult,
} from "./isolation/case";
export {
  debriefOf,
  minutesOf,
  MOST_SEED,
  drawPractice,
  practiceCase,
  practiceLevels,
  unsafeActs,
  type PracticeHidden,
  type PracticeLevel,
  curedBy,
} from "./isolation/practice";
export { renewable, renewalOf, renewedIn } from "./isolation/practiceCost";
export { testPointAdvice, type TestPoint, type TestPointAdvice } from "./isolation/testPoints";
export type { Leaning, PlantCause, PlantKnowledge } from "./isolation/knowledge/plant";
export { reasonsOf } from "./isolation/why";
export { adviceOf } from "./isolation/next";
export { onsetOf } from "./assessment/onset";
export { warmthOf } from "./circuit/heat";
export { agrees, distanceOf, matchOf } from "./circuit/match";
export type { PresentGauge } from "./circuit/match";
export { outcomeOf, type LifeOutcome } from "./assessment/outcome";
export { decideBy } from "./assessment/decide";
export { usualPrior } from "./assessment/usualPrior";
export { rememberState, standingOf, type StateMemory } from "./assessment/standing";
export { forecastBasis, rememberForecast, type ForecastMemory, type MoveCause } from "./assessment/moved";
export { wideningOf } from "./forecast/widen";
export { scorecard, type IssuedForecast, type Scorecard } from "./forecast/scorecard";
export { assess } from "./assessment/assess";
export { probabilityBy } from "./assessment/dated";
export { levelNow, marginHistory } from "./assessment/history";
export { correctSeries } from "./assessment/series";
export type { CorrectedReading } from "./assessment/series";
export { BEYOND, stateOfUrgency, urgenciesOf } from "./state/state";
export { expectedReading } from "./assessment/expected";
export type { ExpectedRange } from "./assessment/expected";
export { questionReading } from "./assessment/question";
export type { Question } from "./assessment/question";
export { chance } from "./assessment/verdict";
export { conditionStates, stateWords } from "./state/state";
export type { ConditionState } from "./state/state";
export type { VerdictPart } from "./state/verdictPart";
export type {
  AssessContext,
  AssessPoint,
  AssessReading,
  AssessStop,
  Assessment,
  AssessedForecast,
  Expectation,
  ReadingMark,
  SeriesContext,
  SeriesPoint,
} from "./assessment/types";
export type { Working, WorkingRow } from "./working";
export { random } from "./random/random";
export type { Random } from "./random/random";
export { simulateLife } from "./simulation/life";
export type { SimulatedReading, WearLaw } from "./simulation/life";
export { componentKindIds, componentKinds, missingPoints } from "./equipment/kinds";
export type { ComponentKind } from "./equipment/kinds";
export { calculatorOf, calculators } from "./calculators/index";
export { exampleOf, runCalculator } from "./calculators/run";
export { calculatorGroups } from "./calculators/types";
export type {
  Calculator,
  CalculatorChart,
  CalculatorGroup,
  Cell,
  FactId,
  FieldSpec,
  Outcome,
} from "./calculators/types";
export { checkOf, checks, checksFor } from "./checks/index";
export { plantCheck, plantTestProblem } from "./checks/plant";
export type { PlantTest, Check } from "./checks/types";
export type { Principle } from "./instrument/fitness";
export { cautionFor } from "./rounds/caution";
export { readingInterval } from "./rounds/interval";
export { readsTheOil } from "./rounds/oilTemperature";
export { judgeRepeats } from "./rounds/repeats";
export { isNewStep, isStuck, readTesterLine, stillStep } from "./checks/live";
export type { Timed } from "./checks/live";
export { restingKnobs, simulateTester } from "./simulation/tester";
export type { TesterKnobs, TesterSample } from "./simulation/tester";
export { analyteIds, analytes, countIds, countSizes, isAnalyte } from "./oil/analytes";
export type { AnalyteGroup, AnalyteId, WearMetalId } from "./oil/analytes";
export { incomparable, sampleProblems, samplePlaces, sampleStates } from "./oil/sample";
export type { OilSample, Result, Results, SamplePlace, SampleState } from "./oil/sample";
export { countFor, sampleCodes, sampleIso } from "./oil/codes";
export { circuitTarget } from "./oil/target";
export { fluidAt } from "./fluid/measured";
export type { MeasuredViscosity } from "./fluid/measured";
export { mixing, mixtureViscosity } from "./oil/fill";
export { pouring } from "./oil/suits";
export { sampleSeries, type SampleSeries } from "./oil/sampleSeries";
export type { NamedFluid } from "./oil/fill";
export { metalSeries } from "./oil/wear";
export { wearMetalIds as wearMetals } from "./oil/analytes";
export type { MetalAlarm, MetalPoint } from "./oil/wear";
export { usualMaterials } from "./oil/parts";
export type { Material } from "./oil/parts";
export { cleanUpPlan, fitCleanUp, together } from "./oil/cleanUp";
export { closingProblems, debrisTasks } from "./oil/debris";
export { assessOil } from "./oil/assess";
export type { FilterData, OilAssessment, OilComponentInput, OilFinding, OilInput } from "./oil/types";
export type { LeakSeries } from "./oil/agreement";
export { elementKindIds, elementKinds, type ElementKindId } from "./circuit/kinds";
export {
  netlistProblems,
  portKey,
  type CircuitLine,
  type LineData,
  type Netlist,
  type PortRef,
} from "./circuit/netlist";
export { componentKindOf, draftCircuit, elementKindOf } from "./circuit/draft";
export { gaugesOf, type DraftComponent } from "./circuit/draftBoard";
export { fitCircuit, type BaselineReading, type FitResult } from "./circuit/fit";
export type { Circumstances } from "./circuit/circumstances";
export { gaugeReader, oilAt, workCommands } from "./circuit/gauges";
export { isNamed, symbolSizes, type Drawing, type LineStyle } from "./circuit/drawing";
export { drawnAsLaid } from "./circuit/layout/draw";
export { layoutGraph } from "./circuit/layout/graph";
export { LONGEST_DRAWN, tagPlaces } from "./circuit/tagPlaces";
export { ageOf, HOSE_YEARS, lineFigures, lineRemarks, lineStyle, type LineFigure } from "./circuit/lineData";
export { play, pressureAt, scenarios, scenariosOf, type CourseLine, type ScenarioId } from "./circuit/scenarios";
export { steadyState } from "./circuit/steady";
export { familyOfQuantity, readingFamilies, readingFamilyIds, type ReadingFamily } from "./equipment/families";
export { machineTemplates, oilGrades, templateIds, type OilGrade, type TemplateId } from "./equipment/templates";
export { filedCircuit, netlistOfFile, type FiledCircuit } from "./circuit/file";
export { readNetlist } from "./circuit/read";
export {
  addElement,
  changeElement,
  joinPorts,
  placeComponent,
  portsOf,
  removeElement,
  removeLine,
  stateLine,
  tieElement,
  type Change as CircuitChange,
} from "./circuit/edit";
export {
  answerText,
  entryProblem,
  fieldsOfAsk,
  findingFields,
  findingKindIds,
  findingKinds,
  findingProblems,
  findingSays,
  proceduresForWork,
  expectedAfter,
  isProven,
  proofOf,
  proofSides,
  standOfRun,
  stepProblems,
  stepsOf,
  withUnits,
  workProcedures,
  jobStand,
} from "./work/index";
export type {
  Ask,
  FindingKindId,
  JobStageId,
  JobStageState,
  JobStand,
  Proof,
  RunStand,
  StepEntry,
  StepStand,
  WorkProcedure,
  WorkStep,
} from "./work/index";
