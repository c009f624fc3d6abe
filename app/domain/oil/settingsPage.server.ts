/** Components of a circuit as the oil sees them. */
import { and, eq, isNull } from "drizzle-orm";
import { db } from "~/db/client.server";
import { components } from "~/db/schema";
import { circuitPlace } from "./place.server";

/** Components of a circuit as the oil sees them. */
export async function settingsPage(id: string) {
  const [place, rows] = await Promise.all([
    circuitPlace(id),
    db()
      .select()
      .from(components)
      .where(and(eq(components.circuitId, id), isNull(components.retiredAt)))
      .orderBy(components.position),
  ]);
  const { circuit } = place;
  return {
    circuitId: id,
    name: circuit.name,
    machine: place.machine,
    circuit: {
      targetCode: circuit.targetCode,
      targetReason: circuit.targetReason,
      targetSetBy: circuit.targetSetBy,
      startTemperature: circuit.startTemperature,
      volume: circuit.volume,
      workingPressure: circuit.workingPressure,
      metalLimits: circuit.metalLimits,
      longestHours: circuit.longestHours,
      longestMonths: circuit.longestMonths,
      version: circuit.version,
    },
    components: rows.map((c) => ({
      id: c.id,
      name: c.name,
      kind: c.kind,
      makersCode: c.makersCode,
      materials: c.materials,
      symptomIfStuck: c.symptomIfStuck,
      fluidNeed: c.fluidNeed,
      filter: c.filter,
      version: c.version,
    })),
  };
}
