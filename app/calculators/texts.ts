/** What the pages of this place say, page by page; a page holds no text of its own. */
export const asText = {
  workedOut: (formula: string) => `Worked out: ${formula}`,
};

export const calculator = {
  calculators: "Calculators",
  juncteral: (title: string) => `${title} · Juncteral`,
  copied: (what: string) => `${what} copied.`,
  theBrowserDoesNot: "The browser does not allow copying here.",
  takeValuesFromA: "Take values from a component",
  takeFromAComponent: "Take from a component",
  takenFromWhatYou: (name: string) => `Taken from ${name}; what you change is yours.`,
  leaveIt: "Leave it",
  inputs: "Inputs",
  copyAsText: "Copy as text",
  copyTheAddress: "Copy the address",
};

export const calculators = {
  calculatorsJuncteral: "Calculators · Juncteral",
  calculators: "Calculators",
  calculationsByName: "Calculations by name",
  whatDoYouWant: "What do you want to know?",
  noCalculationByThat: "No calculation by that name.",
  chooseACalculationEach:
    "Choose a calculation. Each shows its working and its source; its address holds what you entered, so " +
    "it can be kept and sent.",
};
