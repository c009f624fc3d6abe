/** Cautions that belong to calculations whose numbers are taken to a machine. Common practice; the maker's manual and local codes first. */
export const cautions = {
  loadTest:
    "Relief fully backed off before the start and set below the pump's rating. Keep a temperature and " +
    "time limit. Never close a pump's outlet without a relief path. Restore the compensator afterwards.",
  suspended: "Prop a suspended load before anything is opened. A load held by oil can come down at once.",
  caseDrain: "Never plug a case drain. Hot oil under pressure: never search for a leak with the hand.",
  settings:
    "Raise a relief valve in a known direction, never past the line's rating, with a gauge that can take it. " +
    "Settings come from the manufacturer's current manual.",
  gauge: "A gauge that is over-ranged can burst. Release the pressure before it is changed.",
  energy: "Isolate, lock, release stored energy, prove zero at a gauge before a line is opened.",
  oil: "Hot oil burns. Let nobody smell or taste a fluid; keep it off the skin.",
} as const;
