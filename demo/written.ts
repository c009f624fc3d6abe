/** What people of the harbour write at the steps of a procedure, and what they find. */
import { fieldsOfAsk, random, stepProblems, stepsOf, type FindingKindId, type WorkProcedure } from "@core";
import type { Motif } from "./drawn";

type Rng = ReturnType<typeof random>;

/** What people of the harbour wrote at a step: the usual thing, checked by the rules that check everybody's. */
export function answersOf(
  procedure: WorkProcedure,
  until: string | null,
  rng: Rng,
  lookAgainOn: string,
): Map<string, Record<string, string>> {
  const given = new Map<string, Record<string, string>>();
  const texts: Record<string, string> = {
    document: `SM-${Math.floor(rng.between(100, 999))} rev ${rng.pick(["B", "C", "D"])}`,
    answers: "Lock master",
    settings: "Compensator 3 turns in, relief 2.5 turns",
    plate: "Right-hand, ports rear, 45 cm³",
    rating: "Same number, 10 µm",
    interim: lookAgainOn,
  };
  const figures: Record<string, string> = {
    pressure: "0 bar",
    torque: "42 N·m",
    temperature: "48 °C",
    weep: "2 drops/min",
    pressureDrop: "0.6 bar",
    litresFilled: "180 L",
    temperatureDifference: "9 K",
  };
  const set: Record<string, string> = {
    "pressure-first": "210 bar",
    "relief-gap": "235 bar",
    "relief-set": "235 bar",
    "port-before": "11 bar",
    "port-after": "24 bar",
  };
  for (const step of stepsOf(procedure)) {
    if (step.id === until) break;
    const { ask } = step;
    const values: Record<string, string> = {};
    for (const field of fieldsOfAsk(ask)) {
      if (field.optional) continue;
      values[field.name] =
        field.name === "passes"
          ? "3"
          : ask?.kind === "count"
            ? ((ask.equals ? given.get(ask.equals)?.count : undefined) ?? String(Math.floor(rng.between(2, 9))))
            : ask?.kind === "choice"
              ? ask.options.find((o) => !o.stops)!.id
              : ask?.kind === "lines"
                ? "P, T, case"
                : field.quantity
                  ? (set[step.id] ?? figures[field.quantity] ?? "1")
                  : (texts[step.id] ?? "as the sheet says");
    }
    const wrong = Object.entries(stepProblems(step, values, Object.fromEntries(given)));
    if (wrong.length > 0) throw new Error(`${procedure.id}, ${step.id}: ${wrong.join()}`);
    given.set(step.id, values);
  }
  return given;
}

export interface Told {
  kind: FindingKindId;
  values: Record<string, string>;
  motif?: Motif;
  caption?: string;
}

export const pumpFindings: Told[] = [
  {
    kind: "wear",
    values: { where: "valve plate", pattern: "scored" },
    motif: "scored",
    caption: "Valve plate, scored between the ports",
  },
  {
    kind: "debris",
    values: { where: "case", what: "fine bronze", magnetic: "no", size: "80 µm" },
    motif: "flakes",
    caption: "From the case, before washing",
  },
  { kind: "clearance", values: { where: "slipper to plate", value: "34 µm", least: "10 µm", greatest: "20 µm" } },
  { kind: "decision", values: { where: "pump", decision: "set", why: "beyond the manufacturer's wear figure" } },
];
export const elementFindings: Told[] = [
  {
    kind: "debris",
    values: { where: "pleats", what: "usual dirt, little metal", magnetic: "some of it" },
    motif: "element",
    caption: "Element opened and spread",
  },
];
export const spoolFindings: Told[] = [
  { kind: "spool", values: { falls: "sticks at a place", where: "12 mm from the coil end" } },
  { kind: "wear", values: { where: "lands", pattern: "polished" } },
  { kind: "decision", values: { where: "spool", decision: "polish", why: "varnish only" } },
];

export const sealFindings: Told[] = [
  {
    kind: "seal",
    values: { where: "interface, port T", condition: "cut or split", orientation: "right" },
    motif: "seal",
    caption: "Seal of port T, cut at its edge",
  },
];
