/**
 * The standing diagnosis month by month: wrong names a year on machines that are healthy, and how many readings after its
 * onset a growing fault is named. Every gauge is read once a month; a level is the mean of the last six readings.
 *
 *   tsx scripts/isolation/years.ts [seed] [healthy years a circuit] [every nth fault]
 */
import { elementKinds, explainGauges, gaugeReader, pointsOff, random, standingDiagnosis, type Random } from "@core";
import { causesOf } from "../../core/isolation/candidates";
import { harbourCircuit, otherFigures, type TrialCircuit } from "./world";

const seed = Number(process.argv[2] ?? 51);
const YEARS = Number(process.argv[3] ?? 5);
const EVERY = Number(process.argv[4] ?? 12);
const TAGS = ["LG-ON", "LG-IN", "SL-1", "SL-3", "RR-1", "QC-2", "BR-D", "SC-1", "WC-1", "DT-1"];
/** Scatter of one reading, and how many of them a level rests on. */
const SCATTER = 0.04;
const RESTS_ON = 6;
/** A fault grows for a year to this share of its range (log scale). */
const GROWS = 12;
const GROWN = 0.8;
const WATCHED = 18;

type Faults = Record<string, Record<string, number>>;

/** A circuit that is not quite the model's, read every month; each call is the next month's reading. */
function watch(circuit: TrialCircuit, rng: Random) {
  const { netlist, states, usual } = circuit;
  const real = gaugeReader(otherFigures(netlist, rng.fork("figures")), new Map(states));
  const own = gaugeReader(netlist, new Map(states));
  const healthy = new Map(real(usual).values);
  const model = new Map(own(usual).values);
  const past = new Map<string, number[]>();
  const noise = rng.fork("readings");
  return (faults: Faults) => {
    const now = Object.keys(faults).length > 0 ? real({ ...usual, faults }).values : healthy;
    const gauges = [...model].flatMap(([pointId, value]) => {
      const [before, after] = [healthy.get(pointId), now.get(pointId)];
      if (value === null || typeof before !== "number" || typeof after !== "number" || Math.abs(before) < 1e-9)
        return [];
      const readings = [...(past.get(pointId) ?? []), value * (after / before) * (1 + SCATTER * noise.normal())].slice(
        -RESTS_ON,
      );
      past.set(pointId, readings);
      if (readings.length < RESTS_ON) return [];
      const level = readings.reduce((sum, r) => sum + r, 0) / RESTS_ON;
      const relative = SCATTER * Math.sqrt(2 / RESTS_ON);
      return [{ pointId, value: level, uncertainty: Math.max(0.005, relative * Math.hypot(value, level)) }];
    });
    const off = pointsOff(netlist, states, usual, gauges);
    if (gauges.length < 3 || !off || off.length === 0) return [];
    return standingDiagnosis(
      netlist,
      explainGauges(netlist, own, usual, gauges, { most: Infinity, several: true }),
      off,
    ).named;
  };
}

const say = (text: string) => process.stdout.write(`${text}\n`);
const circuits = TAGS.map((tag) => harbourCircuit(tag)!);
let [looks, wrong, begun] = [0, 0, 0];
for (const [k, circuit] of circuits.entries())
  for (let year = 0; year < YEARS; year++) {
    const read = watch(circuit, random(seed * 1000 + 10 * k + year));
    let before = 0;
    for (let month = 0; month < 12 + RESTS_ON; month++) {
      const names = read({}).length;
      if (month < RESTS_ON) continue;
      looks++;
      wrong += Number(names > 0);
      begun += Number(names > before);
      before = names;
    }
  }
say(
  `healthy: ${circuits.length * YEARS} machine years, ${looks} looks; a wrong name in ${wrong} looks, begun ${begun} times`,
);

const after: number[] = [];
let [never, other] = [0, 0];
circuits.forEach((circuit, k) => {
  const faults = circuit.netlist.elements.flatMap((e) =>
    Object.entries(elementKinds[e.kind].faults).map((f) => ({ e, f })),
  );
  faults.forEach(({ e, f: [fault, { greatest, least }] }, i) => {
    if ((i + k) % EVERY !== 0) return;
    const read = watch(circuit, random(seed * 3000 + 100 * k + i));
    for (let month = 0; month < RESTS_ON; month++) read({});
    const lowest = Math.log(least ?? greatest * 1e-3);
    const cause = causesOf(e.kind, fault)[0];
    for (let month = 1; month <= WATCHED; month++) {
      const size = Math.exp(lowest + GROWN * Math.min(1, month / GROWS) * (Math.log(greatest) - lowest));
      const names = read({ [e.id]: { [fault]: size } });
      if (names.some((n) => n.fault.element === e.id || n.cause === cause)) {
        after.push(month);
        return;
      }
      if (names.length > 0) other++;
    }
    never++;
  });
});
after.sort((a, b) => a - b);
const all = after.length + never;
const by = (share: number) => after[Math.floor(share * after.length)] ?? "–";
say(`${all} growing faults: ${after.length} named right within ${WATCHED} readings of their onset, ${never} not`);
say(
  `half of those by reading ${by(0.5)}, nine in ten by reading ${by(0.9)}; another name before that in ${other} looks`,
);
