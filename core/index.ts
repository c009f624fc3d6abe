/** The public face of the computation. The application imports from here and nowhere else in core. */
export { convert, findUnit, fromCore, toCore, unitsOf, units } from "./units/units";
export type { DimensionId, Unit } from "./units/units";
export {
  conditions,
  isPointQuantity,
  measures,
  pointQuantityIds,
  quantities,
  quantityOf,
  readingStateIds,
  readingStates,
} from "./units/quantities";
export type { Harm, MeasureId, PointQuantityId, Quantity, QuantityId, ReadingState } from "./units/quantities";
export { preferableDimensions, preferredUnit, validPreference } from "./units/preference";
export type { UnitPreference } from "./units/preference";
export { parseNumber, parseQuantity } from "./units/parse";
export type { ParsedQuantity, ParseResult } from "./units/parse";
export { decimalsFor, formatNumber, formatQuantity } from "./units/format";
export {
  densityAt,
  dynamicViscosity,
  kinematicViscosity,
  viscosityTemperatureSensitivity,
  waltherConstants,
} from "./fluid/viscosity";
export type { Fluid, ViscosityGrade } from "./fluid/viscosity";
export { gradeOf, viscosityGrades } from "./fluid/grade";
export type { GradeCheck } from "./fluid/grade";
export { gapPressureFactor, MINERAL_ALPHA, viscosityUnderPressure } from "./fluid/pressureViscosity";
export { fluidSuitability, fluidTypeIds, fluidTypes, usualPumpNeed } from "./fluid/suitability";
export type { ComponentFluidNeed, FluidFinding, FluidType } from "./fluid/suitability";
export { solubilityFrom, waterSaturation, waterShare } from "./fluid/water";
export {
  caseFlowShare,
  commonOil,
  hydraulicPower,
  theoreticalFlow,
  throttlingRise,
  volumetricEfficiency,
} from "./pump/flow";
export { analyseLoadTest } from "./pump/loadTest";
export type { LoadStep, LoadTestPump, LoadTestResult, LoadVerdict } from "./pump/loadTest";
export { isFarReference, usualCondition, type ReadCondition, type UsualCondition } from "./leakage/reference";
export { annularLeakage, orificeFlow } from "./leakage/gaps";
export { clearanceAt, clearanceFactor, mixedLeakage, splitLeakage } from "./leakage/mixed";
export { leakFromCreep, leakFromDecay } from "./holding/decay";
export { holdingMargin } from "./holding/margin";
export type { HoldingMargin, HoldingReadings, HoldingValve } from "./holding/margin";
export { settingsLadder } from "./settings/ladder";
export type { Ladder, Settings } from "./settings/ladder";
export { instrumentFitness } from "./instrument/fitness";
export type { Instrument, InstrumentFitness, InstrumentNeed } from "./instrument/fitness";
export { vacuumIndex } from "./instrument/vacuum";
export { countsOfCode, iso4406, iso4406Bounds, parseIso4406, scaleNumber } from "./contamination/iso4406";
export type { Iso4406 } from "./contamination/iso4406";
export { as4059, as4059Table, nas1638, nas1638Table } from "./contamination/classes";
export type { CleanlinessClass } from "./contamination/classes";
export { overTarget, sensitiveKindIds, targetCode, typicalTargets } from "./contamination/target";
export type { SensitiveKind, Target } from "./contamination/target";
export {
  cleanUpTime,
  correctedPressureDrop,
  countAfter,
  filterEfficiency,
  filtrationRatio,
  ingressFrom,
  steadyCount,
} from "./contamination/filter";
export type { TankBalance } from "./contamination/filter";
export { wearMetalAmounts } from "./contamination/wearMetal";
export { cusum, falseAlarmRate } from "./change/cusum";
export type { Cusum } from "./change/cusum";
export { ewma } from "./change/ewma";
export type { Ewma } from "./change/ewma";
export { outliers } from "./change/outliers";
export { stepOrDrift } from "./change/stepOrDrift";
export type { ChangeShape } from "./change/stepOrDrift";
export { weibullFit, weibullReliability } from "./lives/weibull";
export type { Life, WeibullFit } from "./lives/weibull";
export { ageReplacement, replacementCostRate } from "./lives/ageReplacement";
export type { AgeReplacement } from "./lives/ageReplacement";
export { correctedUncertainty, correctLeakage, laminar } from "./leakage/correct";
export type { LeakageExponents } from "./leakage/correct";
export { learnExponents } from "./leakage/exponents";
export { baselineOf, makersBaseline, SETTLED_BASELINE } from "./baseline/baseline";
export type { Baseline } from "./baseline/baseline";
export { addDays, dayOf, daysBetween, dayStart, stopEnds } from "./planning/day";
export { partAgainstStop, partReadyOn, type PartAnswer } from "./planning/part";
export { questionHours } from "./hours/question";
export { hoursFit, meterOffset, runningHours, type MeterChange } from "./hours/runningHours";
export { limitBases, limitBasisIds, limitProblem, resolveLimits } from "./baseline/limit";
export type { LimitBasis, LimitRule, Limits } from "./baseline/limit";
export { excess, leavesMargin, sidesOf, usedTowards } from "./baseline/margin";
export { sameMonthOf } from "./baseline/sameMonth";
export type { SameMonth } from "./baseline/sameMonth";
export { theilSen } from "./trend/theilSen";
export { mannKendall } from "./trend/mannKendall";
export { weightedLine } from "./trend/weightedLine";
export { inverseEcdf, median, robustSpread } from "./trend/robust";
export { firstPassageCdf, firstPassageQuantile } from "./forecast/firstPassage";
export { defaultPrior, learnPrior } from "./forecast/prior";
export type { SisterLife, WearPrior } from "./forecast/prior";
export { forecast } from "./forecast/forecast";
export { pathLabel } from "./forecast/wearPath";
export { assess, probabilityBy } from "./assessment/assess";
export { correctSeries } from "./assessment/series";
export type { CorrectedReading } from "./assessment/series";
export { lastReadingWorking } from "./assessment/workings";
export { stateOfUrgency } from "./state/state";
export { expectedReading } from "./assessment/expected";
export type { ExpectedRange } from "./assessment/expected";
export { questionReading } from "./assessment/question";
export type { Question } from "./assessment/question";
export { chance } from "./assessment/verdict";
export { conditionStates } from "./state/state";
export type { ConditionState } from "./state/state";
export type { VerdictPart } from "./state/verdictPart";
export type {
  AssessContext,
  AssessPoint,
  AssessReading,
  AssessStop,
  Assessment,
  AssessedForecast,
  ContextInput,
  Expectation,
  PointInput,
  ReadingInput,
  ReadingMark,
  SeriesContext,
  SeriesPoint,
} from "./assessment/types";
export type { Working, WorkingRow } from "./working";
export { random } from "./random/random";
export type { Random } from "./random/random";
export { simulateLife, oilTemperatureAt, wearLaws } from "./simulation/life";
export type { SimulatedReading, WearLaw } from "./simulation/life";
export { componentKindIds, componentKinds, missingPoints } from "./equipment/kinds";
export type { ComponentKind, MissingPoint } from "./equipment/kinds";
export { calculatorOf, calculators } from "./calculators/index";
export { exampleOf, runCalculator } from "./calculators/run";
export type { CalculatorResult } from "./calculators/run";
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
export { plantProcedure, plantTestProblem, procedureOf, procedures, proceduresFor } from "./procedures/index";
export type { PlantTest, Procedure } from "./procedures/types";
export type { Principle } from "./instrument/fitness";
export { cautionFor } from "./rounds/caution";
export { readingInterval } from "./rounds/interval";
export { readsTheOil } from "./rounds/oilTemperature";
export { judgeRepeats } from "./rounds/repeats";
export { isNewStep, isStuck, readTesterLine, stillStep } from "./procedures/live";
export type { Timed } from "./procedures/live";
export { restingKnobs, simulateTester } from "./simulation/tester";
export type { TesterKnobs, TesterSample } from "./simulation/tester";
export { analyteIds, analytes, countIds, countSizes, isAnalyte } from "./oil/analytes";
export type { AnalyteGroup, AnalyteId, WearMetalId } from "./oil/analytes";
export { incomparable, middle, sampleProblems, samplePlaces, sampleStates } from "./oil/sample";
export type { OilSample, Result, Results, SamplePlace, SampleState } from "./oil/sample";
export { countFor, sampleCodes, sampleIso } from "./oil/codes";
export { circuitTarget } from "./oil/target";
export { fluidAt } from "./fluid/measured";
export type { MeasuredViscosity } from "./fluid/measured";
export { fillAge, mixing, mixtureViscosity } from "./oil/fill";
export type { FillAge, LongestFill, NamedFluid } from "./oil/fill";
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
