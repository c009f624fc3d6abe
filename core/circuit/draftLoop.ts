/**
 * A closed loop from the list of its components: pump and motor send the same oil round; a small charge pump makes up through
 * check valves for what leaks, relief valves stand across the loop, and a flushing valve lets the warm low side out.
 */
import { LOAD_SHARE, RELIEF_ABOVE, type DraftBoard, type DraftComponent } from "./draftBoard";
import { sizedLine } from "./sized";

/** Charge pressure and what the flushing valve keeps in the low side, bar (common practice: 15 to 30). */
const CHARGE = 25;
const FLUSHING = 18;
/** A charge pump has this share of the main pump's displacement (common practice). */
const CHARGE_SHARE = 0.2;
const USUAL_DISPLACEMENT = 45;
const USUAL_MOTOR = 500;

const plateOf = (c: DraftComponent) => ({
  ...(c.displacement !== null && { displacement: c.displacement }),
  ...(c.speed !== null && { speed: c.speed }),
});

/**
 * Draw the closed loop of these components on the board.
 * @param tank id of the reservoir, on the board already
 * @param pressure working pressure of the loop, bar
 */
export function draftLoop(board: DraftBoard, tank: string, pressure: number): void {
  const { of, add, join, assumed, size } = board;
  const pumps = of("closedLoopPump");

  // ---- the way home: case drains and flushed oil, through the cooler
  let home = `${tank}.T`;
  for (const c of of("other").filter((o) => /cooler/i.test(o.name))) {
    const id = add("cooler", c.name, {}, c);
    join(`${id}.out`, home);
    home = `${id}.in`;
  }
  const drainOf = (id: string) => {
    const drain = add("line", "Case line", sizedLine(0.3, 0.005, size));
    join(`${id}.case`, `${drain}.in`);
    join(`${drain}.out`, home);
  };

  // ---- pumps and motors, side by side in one loop
  const ids = pumps.map((p) => add("closedLoopPump", p.name, plateOf(p), p));
  const [first] = ids as [string];
  const [a, b] = [`${first}.A`, `${first}.B`];
  for (const other of ids.slice(1)) {
    join(a, `${other}.A`);
    join(b, `${other}.B`);
  }
  for (const id of ids) drainOf(id);
  if (ids.length > 1) assumed.push("Pumps of a closed loop: drawn side by side in one loop.");
  const motors = of("pistonMotor");
  for (const m of motors) {
    const torque = (LOAD_SHARE * (pressure - CHARGE) * (m.displacement ?? USUAL_MOTOR)) / (20 * Math.PI);
    const id = add("motor", m.name, { ...plateOf({ ...m, speed: null }), torque }, m);
    join(a, `${id}.A`);
    join(b, `${id}.B`);
    drainOf(id);
  }
  if (motors.length === 0) {
    const id = add("motor", "What it drives", {
      torque: (LOAD_SHARE * (pressure - CHARGE) * USUAL_MOTOR) / (20 * Math.PI),
    });
    join(a, `${id}.A`);
    join(b, `${id}.B`);
    assumed.push("No motor is on record: one is drawn, without its case line.");
  }

  // ---- charge: pump, filter, relief valve, a check valve to each side
  const [chargePump] = of("gearPump", "axialPistonPump");
  if (!chargePump) assumed.push("No charge pump is on record: one is drawn. A closed loop cannot work without.");
  const displacement = CHARGE_SHARE * (pumps[0]!.displacement ?? USUAL_DISPLACEMENT);
  const charge = add(
    "fixedPump",
    chargePump?.name ?? "Charge pump",
    { displacement, caseLeak: 0, ...(chargePump && plateOf(chargePump)) },
    chargePump,
  );
  const strainer = add("strainer", "Suction");
  join(`${tank}.T`, `${strainer}.in`);
  join(`${strainer}.out`, `${charge}.in`);
  let feed = `${charge}.out`;
  for (const f of of("filter")) {
    const id = add("filter", f.name, {}, f);
    join(feed, `${id}.in`);
    feed = `${id}.out`;
  }
  const reliefs = of("reliefValve");
  const ofCharge = reliefs.find((r) => /charge|boost/i.test(r.name));
  if (!ofCharge) assumed.push(`No relief valve of the charge is on record: one of ${CHARGE} bar is drawn.`);
  const low = add("relief", ofCharge?.name ?? "Charge relief valve", { crack: CHARGE }, ofCharge);
  join(feed, `${low}.P`);
  join(`${low}.T`, `${tank}.T`);
  for (const side of [a, b]) {
    const check = add("check", "Check valve");
    join(feed, `${check}.in`);
    join(`${check}.out`, side);
  }

  // ---- relief valves across the loop, one a direction
  const across = reliefs.filter((r) => r !== ofCharge).slice(0, 2);
  if (across.length < 2)
    assumed.push("A closed loop has a relief valve for each direction: those that are not on record are drawn.");
  for (const [i, [from, to]] of [
    [a, b],
    [b, a],
  ].entries()) {
    const c = across[i];
    const id = add("relief", c?.name ?? `Loop relief valve, ${"AB"[i]!}`, { crack: pressure + RELIEF_ABOVE }, c);
    join(from!, `${id}.P`);
    join(`${id}.T`, to!);
  }

  // ---- and the valve that changes the oil
  const [flush] = of("flushingValve");
  if (!flush) {
    assumed.push("No flushing valve is on record: only what leaks to the cases leaves the loop.");
    return;
  }
  const id = add("flushing", flush.name, { set: FLUSHING }, flush);
  join(a, `${id}.A`);
  join(b, `${id}.B`);
  join(`${id}.T`, home);
}
