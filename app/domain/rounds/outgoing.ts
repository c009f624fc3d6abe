/** What a tablet sends to the server, and what becomes of it. */
import { number, object, string, type InferType } from "yup";
import { isUuid } from "~/platform/validate";

/** From the first tablets to the end of any plan. */
const MOMENTS = [Date.UTC(2000, 0, 1), Date.UTC(2200, 0, 1)] as const;

const id = () => string().strict().required().test("id", "is no id", isUuid);
const base = {
  submission: id(),
  roundId: id(),
  pointId: id(),
  /** Epoch ms, on the server's clock as the tablet knew it. */
  at: number().strict().required().min(MOMENTS[0]).max(MOMENTS[1]),
  /** Who took it; left out by tablets of an older version. */
  by: string().strict().optional(),
};
const text = (most: number) => string().strict().max(most).optional();
const readingFields = object({
  value: text(100),
  least: text(100),
  temperature: text(100),
  pressure: text(100),
  hours: text(100),
  speed: text(100),
  takenAt: text(40),
  state: text(40),
  instrumentId: text(40),
  note: text(2000),
  keptBecause: text(400),
});

const schemas = {
  reading: object({
    ...base,
    kind: string<"reading">().oneOf(["reading"]).required(),
    fields: readingFields.required(),
  }),
  skip: object({
    ...base,
    kind: string<"skip">().oneOf(["skip"]).required(),
    reason: string().strict().max(1000).required(),
  }),
  /** A valve that seldom moves was moved on the way. */
  move: object({
    ...base,
    kind: string<"move">().oneOf(["move"]).required(),
    componentId: id(),
  }),
  photo: object({
    ...base,
    kind: string<"photo">().oneOf(["photo"]).required(),
    reading: id(),
    mediaType: string().strict().max(40).required(),
    base64: string().strict().max(5_000_000).required(),
  }),
};

export type OutgoingReading = InferType<typeof schemas.reading>;
export type OutgoingSkip = InferType<typeof schemas.skip>;
export type OutgoingPhoto = InferType<typeof schemas.photo>;
export type OutgoingMove = InferType<typeof schemas.move>;
export type Outgoing = OutgoingMove | OutgoingReading | OutgoingSkip | OutgoingPhoto;

/** An entry as a tablet sent it, or undefined when it is none: one that cannot be read never holds up the others. */
export function outgoingOf(item: unknown): Outgoing | undefined {
  const kind = typeof item === "object" && item !== null ? (item as { kind?: unknown }).kind : undefined;
  if (typeof kind !== "string" || !Object.hasOwn(schemas, kind)) return undefined;
  const schema = schemas[kind as keyof typeof schemas];
  return schema.isValidSync(item) ? schema.cast(item, { stripUnknown: true }) : undefined;
}

export interface Fate {
  submission: string;
  fate: "saved" | "conflict" | "refused";
  field?: string;
  message?: string;
}
