/** Samples as they are listed and shown. */
import { eq, sql } from "drizzle-orm";
import { formatNumber, incomparable, sampleIso, type OilAssessment, type Result } from "@core";
import { db } from "~/db/client.server";
import { oilAssessments, samplePhotos, samples } from "~/db/oilTables";
import { currentOil, oilSampleOf } from "~/domain/condition/index.server";
import { notFound } from "~/platform/missing";
import { circuitPlace } from "./place.server";

/** A line of the list of samples. */
export interface ListedSample {
  id: string;
  number: string;
  at: number;
  code: string | null;
  water: string;
  kv40: number | null;
  iron: string;
  /** Why it counts less, or not. */
  remark: string;
}

const bounded = (result: Result | undefined, digits: number) =>
  result ? `${result.below ? "< " : result.above ? "> " : ""}${formatNumber(result.value, digits)}` : "";

export function listed(row: typeof samples.$inferSelect): ListedSample {
  const sample = oilSampleOf(row);
  return {
    id: sample.id,
    number: sample.number,
    at: sample.at,
    code: sampleIso(sample)?.text ?? null,
    water: bounded(sample.results.water, 0),
    kv40: sample.results.kv40?.value ?? null,
    iron: bounded(sample.results.iron, 1),
    remark: row.withdrawnAt ? "withdrawn" : (incomparable(sample) ?? ""),
  };
}

/** One sample, with its photographs. */
export async function samplePage(id: string) {
  const [row] = await db().select().from(samples).where(eq(samples.id, id));
  if (!row) throw notFound("sample");
  const [place, [stored], photos] = await Promise.all([
    circuitPlace(row.circuitId),
    db()
      .select({ target: sql<OilAssessment["target"]>`(${currentOil}) -> 'target'` })
      .from(oilAssessments)
      .where(eq(oilAssessments.circuitId, row.circuitId)),
    db().select({ id: samplePhotos.id }).from(samplePhotos).where(eq(samplePhotos.sampleId, id)),
  ]);
  return {
    sample: oilSampleOf(row),
    about: {
      colour: row.colour,
      sludge: row.sludge,
      laboratory: row.laboratory,
      note: row.note,
      takenBy: row.takenBy,
      withdrawnBy: row.withdrawnBy,
      withdrawnWhy: row.withdrawnWhy,
      withdrawnAt: row.withdrawnAt?.getTime() ?? null,
    },
    circuitId: row.circuitId,
    machine: place.machine,
    circuit: place.circuit.name,
    photos: photos.map((p) => p.id),
    target: stored?.target ?? null,
  };
}

export async function photoOf(id: string): Promise<{ mediaType: string; content: Buffer }> {
  const [row] = await db()
    .select({ mediaType: samplePhotos.mediaType, content: samplePhotos.content })
    .from(samplePhotos)
    .where(eq(samplePhotos.id, id));
  if (!row) throw notFound("photograph");
  return row;
}
