/** Codes with which a process of the built server ends, beside 0 (well) and 1 (a fault of ours, its stack stands above). */
/** The person who started it has to do something: a sentence says what. */
export const ADVICE = 3;
/** The port was taken between looking and taking it. */
export const PORT_TAKEN = 4;
