/** What the schema of the fleet file cannot say: names that must exist, units that must fit, dates in their order. */
import { findUnit, netlistOfFile, netlistProblems, parseIso4406, quantityOf } from "@core";
import type { FleetCircuit, FleetComponent, FleetFile, FleetPoint } from "./types";

/** The code of a point, as in the CSV of readings. */
export const pointCode = (machineTag: string, component: string, point: string) =>
  `${machineTag}/${component}/${point}`;

const moment = (text: string) => Date.parse(text);

function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** What is wrong with a cleanliness code, or nothing. */
function codeProblem(code: string): string | undefined {
  try {
    parseIso4406(code);
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
}

function* componentProblems(c: FleetComponent): Generator<string> {
  const problem = c.makersCode && codeProblem(c.makersCode);
  if (problem) yield `${c.makersCode}: ${problem}`;
  const spans = [
    ...(c.earlierLives ?? []).map((l) => ({ from: moment(l.fittedAt), until: moment(l.endedAt) })),
    ...(c.fittedAt ? [{ from: moment(c.fittedAt), until: Infinity }] : []),
  ].sort((a, b) => a.from - b.from);
  for (const [i, span] of spans.entries()) {
    if (span.until < span.from) yield "a part was taken out before it was fitted.";
    if (i > 0 && span.from < spans[i - 1]!.until) yield "two parts cannot be in one place at the same time.";
  }
}

function* diagramProblems(place: string, k: FleetCircuit): Generator<string> {
  if (!k.diagram) return;
  const names = new Set((k.components ?? []).map((c) => c.name));
  for (const e of k.diagram.elements)
    if (e.component !== undefined && !names.has(e.component))
      yield `${place}: its diagram has a component ${e.component}, the circuit has none.`;
  const [grave] = netlistProblems(netlistOfFile(k.diagram, (name) => name)).filter((p) => p.grave);
  if (grave) yield `${place}: its diagram cannot be: ${grave.message}`;
}

function* pointProblems(p: FleetPoint): Generator<string> {
  const quantity = quantityOf(p.quantity);
  if (p.unit && !findUnit(p.unit, quantity.dimension))
    yield `${p.unit} is not a unit of ${quantity.label.toLowerCase()}.`;
  const { upper, lower } = p.limit ?? {};
  if (typeof upper === "number" && typeof lower === "number" && upper <= lower)
    yield "the upper limit must lie above the lower one.";
}

/** Everything that is wrong with a file whose form is right, each with its place. */
export function* fleetProblems(file: FleetFile): Generator<string> {
  for (const f of file.fluids ?? [])
    if (f.kv40 <= f.kv100) yield `Fluid ${f.name}: the viscosity at 40 °C must be above that at 100 °C.`;
  const tags = new Set((file.instruments ?? []).map((i) => i.tag));
  const places = new Set(
    file.sites.flatMap((s) =>
      (s.machines ?? []).flatMap((m) =>
        (m.circuits ?? []).flatMap((k) =>
          (k.components ?? []).flatMap((c) =>
            (c.points ?? []).map((p) => `${s.name}/${pointCode(m.tag, c.name, p.name)}`),
          ),
        ),
      ),
    ),
  );
  for (const site of file.sites) {
    if (!isTimeZone(site.timeZone)) yield `Site ${site.name}: ${site.timeZone} is not a time zone.`;
    for (const m of site.machines ?? []) {
      for (const k of m.circuits ?? []) {
        const problem = k.targetCode && codeProblem(k.targetCode);
        if (problem) yield `${m.tag}/${k.name}: ${k.targetCode}: ${problem}`;
        yield* diagramProblems(`${m.tag}/${k.name}`, k);
        for (const c of k.components ?? []) {
          for (const problem of componentProblems(c)) yield `${m.tag}/${c.name}: ${problem}`;
          for (const p of c.points ?? []) {
            const code = pointCode(m.tag, c.name, p.name);
            for (const problem of pointProblems(p)) yield `${code}: ${problem}`;
            if (p.instrument && !tags.has(p.instrument)) yield `${code}: the file has no instrument ${p.instrument}.`;
          }
        }
      }
    }
    for (const r of site.rounds ?? [])
      for (const p of r.points)
        if (!places.has(`${p.site ?? site.name}/${p.code}`))
          yield `Round ${r.name}: there is no point ${p.code} at ${p.site ?? site.name}.`;
  }
}
