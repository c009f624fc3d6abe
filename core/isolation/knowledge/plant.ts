/** What a plant adds to the knowledge of the house: causes and tests of its own, other odds, and what its closed cases count. */
import { causeIds, causes, type CauseId } from "./causes";
import { symptoms, type SymptomId } from "./symptoms";
import { testIds, tests } from "./tests";
import { ranks, type Cause, type Rank, type Test } from "./types";

export interface PlantCause extends Cause {
  /** The symptoms that it brings, and how it ranks among their causes. */
  symptoms: Partial<Record<SymptomId, Rank>>;
  /** The tests of the house show of it what they show of this cause; left out: nothing. */
  like?: CauseId;
  basis: string;
}

/** What the register says of one element before any test: an open bulletin, or what parts of its model had. */
export interface Leaning {
  element: string;
  /** The cause that it makes likelier; null: any cause of this element. */
  cause: string | null;
  /** So many times likelier than without it, over 0. */
  factor: number;
  /** What it rests on, in words. */
  text: string;
  /** Somebody took it out. */
  out?: boolean;
}

/** Several leanings on one cause together make it so many times likelier at most. */
const MOST_LEANING = 8;

/** How many times likelier a cause at an element is by all that leans to it. */
export function leaningTo(leanings: readonly Leaning[] | undefined, cause: string, element: string | null): number {
  const own = (leanings ?? []).filter(
    (l) => !l.out && l.element === element && (l.cause === null || l.cause === cause),
  );
  return Math.min(
    MOST_LEANING,
    own.reduce((product, l) => product * l.factor, 1),
  );
}

export interface PlantKnowledge {
  /** How often each cause was found in cases that began with this symptom. */
  found: Partial<Record<string, number>>;
  /** By id; ids of a plant's own never are those of the house. */
  causes?: Record<string, PlantCause>;
  tests?: Record<string, Test>;
  /** How causes of the house rank here instead. */
  ranks?: Partial<Record<SymptomId, Partial<Record<CauseId, Rank>>>>;
  /** What the register says of single elements. */
  leanings?: readonly Leaning[];
}

/** A cause with what is known of it, and its weight beside the others of a symptom. */
export interface KnownCause {
  id: string;
  about: Cause & { like?: CauseId };
  weight: number;
}

/** The causes of a symptom, those of the plant among them. */
export function causesFor(symptom: SymptomId, plant: PlantKnowledge | undefined): KnownCause[] {
  const here = plant?.ranks?.[symptom] ?? {};
  const listed = (Object.entries(symptoms[symptom].causes) as [Rank, readonly CauseId[]][]).flatMap(([rank, ids]) =>
    ids.map((id): KnownCause => ({ id, about: causes[id], weight: ranks[here[id] ?? rank] })),
  );
  const names = new Set(listed.map((c) => c.id));
  const named = causeIds.filter((id) => here[id] && !names.has(id));
  const own = Object.entries(plant?.causes ?? {}).flatMap(([id, about]): KnownCause[] => {
    const rank = about.symptoms[symptom];
    return rank ? [{ id, about, weight: ranks[rank] }] : [];
  });
  return [...listed, ...named.map((id): KnownCause => ({ id, about: causes[id], weight: ranks[here[id]!] })), ...own];
}

/** Every test, those of the plant last. */
export function testsFor(plant: PlantKnowledge | undefined): [string, Test][] {
  return [...testIds.map((id): [string, Test] => [id, tests[id]]), ...Object.entries(plant?.tests ?? {})];
}
