/** The invented oil as rows of the database: fills, samples, and two debris events. */
import { DAY, debrisTasks } from "@core";
import type { Queryable } from "~/db/client.server";
import { debrisEvents, debrisTasks as debrisTaskRows, oilEvents, samples } from "~/db/oilTables";
import { circuits, components, machines } from "~/db/schema";
import type { OilHistory } from "./oil";

const LABORATORY = "Estuary Laboratory";

interface Rows {
  machines: (typeof machines.$inferInsert)[];
  circuits: (typeof circuits.$inferInsert)[];
  components: (typeof components.$inferInsert)[];
  samples: (typeof samples.$inferInsert)[];
  oilEvents: (typeof oilEvents.$inferInsert)[];
}

const iso = (ms: number) => new Date(ms).toISOString().slice(0, 10);

export function addOil(
  rows: Rows,
  at: { circuitId: string; tag: string; fluidIds: Map<string, string>; hoursAt(at: number): number },
  oil: OilHistory,
): void {
  for (const move of oil.moves)
    rows.oilEvents.push({
      circuitId: at.circuitId,
      kind: move.kind,
      at: new Date(move.at),
      hours: Math.round(at.hoursAt(move.at)),
      litres: move.litres,
      fluidId: at.fluidIds.get(move.fluid)!,
      note: move.note,
      by: move.kind === "topUp" ? "T. Wren" : "L. Aske",
    });
  const newest = oil.moves.at(-1)!;
  rows.oilEvents.push({
    circuitId: at.circuitId,
    kind: "level",
    at: new Date(newest.at + DAY),
    level: "Middle of the glass",
    condition: "Oil 46 °C, machine level, actuators retracted",
    by: "T. Wren",
  });
  oil.samples.forEach((s, i) =>
    rows.samples.push({
      id: crypto.randomUUID(),
      circuitId: at.circuitId,
      number: `${at.tag}-${new Date(s.at).getUTCFullYear()}-${String(i + 1).padStart(3, "0")}`,
      takenAt: new Date(s.at),
      hours: s.hours,
      place: s.place,
      state: s.state,
      results: s.results,
      laboratory: LABORATORY,
      note: s.note,
      colour: s.place === "drain" ? "dark, cloudy" : "amber, clear",
      sludge: s.place === "drain" ? "traces" : "none",
      takenBy: "T. Wren",
    }),
  );
}

/** One event still open on the second crane, one closed on the compactor when its pump broke up. */
export async function addDebrisEvents(tx: Queryable, rows: Rows, now: number): Promise<void> {
  const placed = (name: string) => {
    const machine = rows.machines.find((m) => m.name === name);
    const circuit = machine && rows.circuits.find((c) => c.machineId === machine.id);
    const parts = circuit
      ? rows.components
          .filter((c) => c.circuitId === circuit.id)
          .map((c) => ({ id: c.id!, name: c.name, kind: c.kind, position: c.position ?? 0, symptomIfStuck: "" }))
      : [];
    return circuit ? { circuit, parts } : null;
  };
  const open = async (
    name: string,
    event: Omit<typeof debrisEvents.$inferInsert, "circuitId" | "id">,
    foundAt: string,
    targetCodes: number[],
    done: boolean,
  ) => {
    const place = placed(name);
    if (!place) return;
    const found = place.parts.find((p) => p.name === foundAt)!;
    const source = event.closedAt ? found.id : null;
    const id = crypto.randomUUID();
    const at = event.openedAt.getTime();
    const clean = event.closedAt
      ? rows.samples.filter((s) => s.circuitId === place.circuit.id && s.takenAt.getTime() > at).at(5)
      : undefined;
    await tx.insert(debrisEvents).values({
      ...event,
      id,
      circuitId: place.circuit.id!,
      foundAtId: found.id,
      sourceComponentId: source,
      cleanSampleId: clean?.id ?? null,
    });
    await tx.insert(debrisTaskRows).values(
      debrisTasks(place.parts, found.id, { targetCodes, minutes: 120 }).map((t, position) => ({
        eventId: id,
        kind: t.kind,
        position,
        componentId: t.componentId,
        title: t.title,
        detail: t.detail,
        dueOn: t.dueDays === null ? null : iso(at + t.dueDays * DAY),
        ...(done && {
          result:
            t.kind === "check"
              ? t.componentId === source
                ? ("renewed" as const)
                : ("clean" as const)
              : ("done" as const),
          doneAt: new Date(at + (t.dueDays ?? 1) * DAY),
          doneBy: "L. Aske",
        }),
      })),
    );
  };
  await open(
    "Waste compactor",
    {
      openedAt: new Date(now - 426.2 * DAY),
      openedBy: "T. Wren",
      what: "Bronze flakes in the return filter; the pump rattled",
      closedAt: new Date(now - 392 * DAY),
      closedBy: "R. Oduya",
      sourceWords: "Port plate of the pump, scored and flaking",
    },
    "Pump",
    [18, 16, 13],
    true,
  );
  await open(
    "Quay crane 2",
    {
      openedAt: new Date(now - 5 * DAY),
      openedBy: "T. Wren",
      what: "The laboratory reports metal and two numbers over target again; glitter on the patch",
    },
    "Hoist pump",
    [17, 15, 12],
    false,
  );
}
