/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const begin = {
  aMachineFromA: "A machine from a template · Juncteral",
  fleet: "Fleet",
  aMachineFromATemplate: "A machine from a template",
  circuitComponentsMeasuringPoints:
    "Circuit, components, measuring points with usual limits, oil and a round, ready to be read. Every " +
    "limit is a rule of thumb until you set the manufacturer’s.",
  whatItIsBuilt: "What it is built like",
  template: "Template",
  itsPlate: "Its plate",
  machine: "Machine",
  forExampleAMachine: "For example Baler 2",
  tag: "Tag",
  forExampleATag: "BL-2",
  oil: "Oil",
  mineralOil: (value: string) => `Mineral oil ${value}`,
  pumpATurn: "Pump, a turn",
  speed: "Speed",
  workingPressure: "Working pressure",
  thePressureIsRight: "The pressure is right",
  sinceWhen: "Since when",
  readingsOfEarlierYears:
    "Readings of earlier years come in only where the parts were fitted by then. One line for all parts; each can be put right later.",
  fittedOn: "Parts fitted on",
  emptyToday: "Empty: today",
  hoursThen: "Machine hours then",
  forExample12400: "For example 12400",
  itWasNewThen: "They were new, or of known condition, then",
  whereItStands: "Where it stands",
  site: "Site",
  itIsAddedWith: "It is added with the machine",
  oneThatIsThere: "One that is there, or a new one",
  timeZone: "Time zone",
  addTheMachineAnd: "Add the machine and read it",
};

export const circuit = {
  theCircuitIsKept: "The circuit is kept as drawn.",
  circuit: "circuit",
  whatIfJuncteral: (machine: string) => `What if, ${machine} · Juncteral`,
  whatWouldTheGauges: (machine: string) => `${machine}: what would the gauges show?`,
  noGaugeWouldShow: (machine: string) => `${machine}: no gauge would show it`,
  ofGaugesWouldMove: (machine: string, moved: number, size: number) =>
    `${machine}: ${moved} of ${size} gauges would move`,
  theModelDoesNot:
    "The model does not show what this circuit’s gauges showed when it was healthy: take it as a " +
    "picture, not as a measure.",
  circuitDiagramOfAs: (machine: string, name: string) =>
    `Circuit diagram of ${machine}, ${name}, as asked. The table has the same figures.`,
  pressureFlowAndWarmth: "Pressure, flow and warmth at every port, at work",
  ports: "Ports",
  port: "port",
  pressure: "pressure",
  flowOut: "flow out",
  overTheTank: "over the tank",
  stands: "stands",
  whatIf: "What if",
  reset: "Reset",
  whatTheGaugesWould: "What the gauges would show",
  computing: "computing …",
  asAskedOfGauges: (agree: number, of: number) => `As asked, ${agree} of ${of} gauges stand where they do now; `,
  aHealthyCircuitExplains: (agree: number) => `a healthy circuit explains ${agree}.`,
  aHealthyCircuitExplainsOf: (agree: number, of: number) =>
    `A healthy circuit explains ${agree} of ${of} gauges as they stand now.`,
  askForAFault: " Ask for a fault and see whether it explains more.",
  gauge: "gauge",
  healthy: "healthy",
  asAsked: "as asked",
  now: "now",
  noChange: "no change",
  notModelled: "not modelled",
  fits: "fits",
  doesNotFit: "does not fit",
  fittedToBaselinesWith: (met: number, free: number) =>
    `Fitted to ${counted(met, "baseline")} with ${counted(free, "free figure")}: it says what would follow, it does not prove a cause. `,
  notFittedNoBaseline: "Not fitted: no baseline yet. ",
  nowTheLevelOf: (fit: string, label: string, usualOil: string) =>
    "Now: the level of the last readings at their reference condition; “does not fit” where it lies further " +
    `off than its uncertainty and the model’s explain. ${fit}${label} at ${usualOil} when healthy. ` +
    "Temperatures are those after hours of the machine’s usual day.",
};

export const circuitPicture = {
  noPointForIts: (short: string, whatStaysUnknown: string) => `No point for its ${short}: ${whatStaysUnknown}`,
  circuitDiagramOfThe: (machine: string, name: string) =>
    `Circuit diagram of ${machine}, ${name}. The list below has the same points.`,
  whatIf: "What if …",
  changeTheDrawing: "Change the drawing",
  putTheDrawingRight: "Put the drawing right",
  drawnBy: (drawnBy: string) => `Drawn by ${drawnBy}.`,
  proposedFromTheList:
    "Proposed from the list of components: it is how such circuits are usually built, not a record of this one.",
  theModelShowsOf: (met: number, of: number, free: number) =>
    `The model shows ${met} of ${of} baselines within their uncertainty (${free} figures were fitted).`,
  theModelDoesNot: (met: number, of: number) =>
    `The model does not fit: it meets ${met} of ${of} baselines, and is not used to judge.`,
  whatWasAssumed: "What was assumed",
  isNotInThe: (name: string) => `${name} is not in the diagram.`,
};

export const draw = {
  drawnPartsBecomeComponents: "Drawn parts that are not on record become components",
  drawTheCircuitJuncteral: (machine: string) => `Draw the circuit, ${machine} · Juncteral`,
  chooseTwoPorts: "Choose two ports.",
  chooseAPort: "Choose a port …",
  open: " (open)",
  drawTheCircuitOf: (machine: string) => `Draw the circuit of ${machine}`,
  putComponentsInAnd:
    "Put components in and join their ports, here or by pressing two ports in the diagram; it lays " +
    "itself out. An unfinished circuit can be kept.",
  circuitDiagramOfAs: (machine: string) => `Circuit diagram of ${machine} as drawn so far`,
  stillOpen: "Still open",
  keepThisCircuit: "Keep this circuit",
  undo: "Undo",
  redo: "Redo",
  backToTheProposal: "Back to the proposal",
  putIn: "Put in",
  component: "Component",
  putItIn: "Put it in",
  onRecordAndNot: (name: string) => `On record and not drawn: ${name}.`,
  putInName: (name: string) => `Put ${name} in`,
  joinTwoPorts: "Join two ports",
  from: "From",
  to: "To",
  joinThem: "Join them",
};

export const editRecord = {
  editAJuncteral: (kind: string) => `Edit a ${kind} · Juncteral`,
  kindOfRecord: "kind of record",
  editThe: (name: string, label: string) => `${name}: edit the ${label}`,
  retiredItsRecordStays: "Retired: its record stays. Bring it back to use it again.",
  usuallyReadAtA: (conditions: ReactNode) => (
    <>Usually read at {conditions}: a reference far from it carries the correction outside what it was learned on.</>
  ),
  save: "Save",
  bringItBack: "Bring it back",
  retireThe: (label: string) => `Retire the ${label}`,
  retire: (name: string) => `Retire ${name}?`,
  itLeavesTodayFleet: "It leaves Today, Fleet and the rounds. Its record stays, and you can bring it back.",
  retiringHidesItFrom: "Retiring hides it from Today, Fleet and rounds. Nothing is deleted.",
};

export const elementList = {
  components: "Components",
  name: "Name",
  isNotANumber: (label: string, typed: string) => `${label}: “${typed}” is not a number.`,
  takeOut: (name: string) => `Take ${name} out`,
  lines: "Lines",
  to: (from: string | undefined, to: string | undefined) => `${from} to ${to}`,
  cutTheLineFrom: (name: string) => `Cut the line from ${name}`,
  cut: "Cut",
};

export const explanations = {
  somethingThatTheModel: "Something that the model does not have, or several faults",
  nothingIsWrong: "Nothing is wrong",
  noFaultOfThe: "No fault of the model: a gauge is misread, or something outside moved it",
  explains: (explains: string) => `Explains ${explains}.`,
  doesNotExplain: (leaves: string) => `Does not explain ${leaves}.`,
  tryIt: "Try it",
  whatWouldExplainThe: "What would explain the gauges",
  computing: "computing …",
  itTakesPointsWith: (fewestGauges: number, gauges: number) =>
    `It takes ${fewestGauges} points with a baseline to tell causes apart; this circuit has ${gauges}.`,
  theModelDoesNot: "The model does not fit this circuit, so it is not asked for causes.",
  theModelHasNo: "The model has no answer for these gauges.",
  findTheSingleFault: "Find the single fault that explains them",
  everySingleFaultOf:
    "Every single fault of the model was tried against all gauges as they stand. It says what to test " +
    "first, and proves nothing: confirm with a test before anything is opened or altered.",
};

export const fleet = {
  fleetJuncteral: "Fleet · Juncteral",
  noMachineYet: "No machine yet",
  allMachinesAreNormal: "All machines are normal",
  nothingReadYet: "Nothing is read yet",
  nothingNeedsYouOfWhatWasRead: (unread: number, points: number) =>
    `Nothing needs you in what was read; ${unread} of ${points} points are not read yet`,
  ofMachinesNeedYou: (needing: number, machines: number) =>
    `${needing} of ${machines} machines need${needing === 1 ? "s" : ""} you`,
  machinesByName: "Machines by name",
  nameTagOrArea: "Name, tag or area",
  beginWithAMachine: "Begin with a machine from a template, or load a fleet file under Records.",
  addAMachineFrom: "Add a machine from a template",
  anEngineerAddsThe: "An engineer adds the first machine.",
  noMachineByThat: "No machine by that name.",
  noArea: "No area",
  retired: " (retired)",
  worst: (worst: string) => `, worst ${worst}`,
  of: (needing: number, points: number) => `${needing} of ${points}`,
  withoutRetiredOnes: "Without retired ones",
  showRetiredOnesToo: "Show retired ones too",
  aMachineFromA: "A machine from a template",
  addA: "Add a",
};

export const hoses = {
  toLookAt: (remarked: number) => `: ${remarked} to look at`,
  hosesAndPipes: (lines: number, remarked: string) => `Hoses and pipes, ${lines}${remarked}`,
  hose: "Hose",
  pipe: "Pipe",
  to: "to",
  rated: (rating: string) => `rated ${rating}`,
  bore: (bore: string) => `${bore} bore`,
  years: (age: string) => `${age} years`,
};

export const inTime = {
  diagramAt: "Diagram at",
  time: "time, s",
  pressure: "pressure",
  inTime: "In time",
  computing: "computing …",
  withTheFaultsAnd: (says: string) => `${says} With the faults and settings above.`,
  pressuresOverTime: (label: string) => `Pressures over time: ${label}.`,
};

export const lineFields = {
  isNotANumber: (label: string, typed: string) => `${label}: “${typed}” is not a number.`,
  hoseOrPipe: "Hose or pipe",
  notStated: "not stated",
  hose: "Hose",
  pipe: "Pipe",
  fittedOn: "Fitted on",
  tag: "Tag",
};

export const machine = {
  drawIt: "Draw it: its parts become components",
  machine: "Machine",
  juncteral: (name: string) => `${name} · Juncteral`,
  nothingIsMeasuredYet: (name: string) => `${name}: nothing is measured yet`,
  alarm: (alarm: number) => `${alarm} alarm`,
  alert: (alert: number) => `${alert} alert`,
  drifting: (drifting: number) => `${drifting} drifting`,
  unproven: (unproven: number) => `${unproven} unproven`,
  unread: (unread: number) => `${unread} not read yet`,
  ofPoints: (name: string, parts: string, all: number) => `${name}: ${parts} of ${counted(all, "point")}`,
  itsOnePointIs: (name: string) => `${name}: its one point is normal`,
  allPointsAreNormal: (name: string, all: number) => `${name}: all ${all} points are normal`,
  fleet: "Fleet",
  retired: " Retired.",
  aboutADay: (tag: string, hoursPerDay: string, note: string, retired: string) =>
    `${tag}, about ${hoursPerDay} a day. ${note}${retired}`,
  report: "Report",
  edit: "Edit",
  addACircuit: "Add a circuit",
  alteredForATest: "Altered for a test and not put back:",
  was: (before: string) => `, was ${before}`,
  putItBack: "Put it back",
  noCircuitYet: "No circuit yet.",
  noFluidStated: "no fluid stated",
  itsOil: (oil: string) => `Its oil${oil}`,
  addAComponent: "Add a component",
  noComponentYet: "No component yet.",
  theCircuitDiagramCannot: "The circuit diagram cannot be made; the log of the server says why. The points are below.",
  point: "Point",
  state: "State",
  course: "Course",
  lastReading: "Last reading",
  marginUsed: "Margin used",
  since: (startedAt: string) => `, since ${startedAt}`,
  conditionUnknownWhenMeasuring: ", condition unknown when measuring began",
  editName: (name: string) => `Edit ${name}`,
  addAPointTo: (name: string) => `Add a point to ${name}`,
  addAPoint: "Add a point",
  tests: "Tests",
  noReading: "no reading",
  notMonitoredHere: "Not monitored here",
  withoutAPointFor: (component: string, short: string, whatStaysUnknown: string) =>
    `${component}: without a point for its ${short}, ${whatStaysUnknown}.`,
  addIt: "Add it",
};

export const matrix = {
  fleetJuncteral: "Fleet · Juncteral",
  noSuchReading: "no such reading",
  notKnownYet: "not known yet",
  farOver: "far over",
  ofMarginUsed: (percent: string) => `${percent} of margin used`,
  theFleetAtA: "The fleet at a glance",
  worstReadingOfEach: "Worst reading of each family, with the margin used in percent: 100 is the limit.",
  area: "Area",
  allAreas: "all areas",
  worstState: "Worst state",
  any: "any",
  show: "Show",
  noMachineIsLike: "No machine is like that.",
  showAll: "Show all",
  machinesByFamiliesOf: "Machines by families of readings",
  toOf: (first: number, last: number, found: number) => `${first} to ${last} of ${found}`,
  theOnesBefore: "The ones before",
  theNextOnes: "The next ones",
};

export const meter = {
  setBack: "Set back",
  putRight: "Put right",
  hourMeter: "Hour meter",
  neverChanged: "never changed",
  once: "once",
  times: (changes: number) => `${changes} times`,
  changed: (changes: string) => `changed ${changes}`,
  beforeAfter: (kind: string, at: string, before: string, after: string, note: string) =>
    `${kind} ${at}: ${before} before, ${after} after. ${note}`,
  withdrawThisRecord: "Withdraw this record",
  recordAReplacedOr: "Record a replaced or reset meter",
  whatWasDone: "What was done",
  theMeterWasReplaced: "The meter was replaced",
  itWasSetBack: "It was set back",
  aWrongFigureWas: "A wrong figure was corrected",
  when: "When",
  itShowedBefore: "It showed before",
  itShowsAfter: "It shows after",
  aNewMeter0: "A new meter: 0",
  note: "Note",
  recordIt: "Record it",
};

export const lifeFields = {
  thePartThatIs: "The part that is fitted now",
  fittedOn: "Fitted on",
  emptyToday: "Empty: today",
  machineHoursThen: "Machine hours then",
  forExample12400: "For example 12 400 h",
  serial: "Serial",
  itWasNewOr: "It was new or of known condition when it was fitted",
  notLaterThanItsFirst: "Not later than its first reading",
};

export const newRecord = {
  addAJuncteral: (kind: string) => `Add a ${kind} · Juncteral`,
  kindOfRecord: "kind of record",
  addA: (label: string) => `Add a ${label}`,
  addThe: (label: string) => `Add the ${label}`,
};

export const recordFields = {
  mayBeLeftEmpty: (label: string) => `${label} (may be left empty)`,
  none: "none",
};

export const whatIfPanel = {
  takeOut: (label: string) => `Take out: ${label}`,
  takeItOut: "Take out",
  addAFault: "Add a fault",
  chooseAComponentAnd: "Choose a component and its fault …",
  oilTemperature: "Oil temperature",
  commandAtWork: (name: string) => `${name}, command at work`,
  toA: "to A",
  toB: "to B",
  settingsAndLoads: "Settings and loads",
};
