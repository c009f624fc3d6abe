/** What a tablet sends of a procedure that is carried out. Its fates are those of every entry that a tablet keeps. */
import { array, number, object, string, type InferType } from "yup";
import { findingKindIds } from "@core";
import { isUuid } from "~/platform/validate";
import { SHORTEST_REASON } from "./runState";

const MOMENTS = [Date.UTC(2000, 0, 1), Date.UTC(2200, 0, 1)] as const;
const MOST_FIELDS = 12;

const id = () => string().strict().required().test("id", "is no id", isUuid);
const values = () =>
  object()
    .required()
    .test("values", "are no texts", (given: unknown) => {
      const entries = Object.entries((given ?? {}) as Record<string, unknown>);
      return (
        entries.length <= MOST_FIELDS &&
        entries.every(([k, v]) => /^[a-z]{1,20}$/i.test(k) && typeof v === "string" && v.length <= 400)
      );
    });
const base = {
  submission: id(),
  runId: id(),
  at: number().strict().required().min(MOMENTS[0]).max(MOMENTS[1]),
  by: string().strict().optional(),
};

const schemas = {
  step: object({
    ...base,
    kind: string<"step">().oneOf(["step"]).required(),
    step: string().strict().required().max(60),
    entry: string<"done" | "skipped" | "reopened" | "released">()
      .oneOf(["done", "skipped", "reopened", "released"])
      .required(),
    values: values(),
    reason: string().strict().max(400).defined(),
    /** The newest entry of the step that the tablet knew of; empty: none. */
    after: string().strict().max(40).defined(),
  }),
  finding: object({
    ...base,
    kind: string<"finding">().oneOf(["finding"]).required(),
    finding: string<(typeof findingKindIds)[number]>().oneOf(findingKindIds).required(),
    values: values(),
  }),
  /** A finding that was wrong, taken back by who wrote it or an engineer. */
  withdrawal: object({
    ...base,
    kind: string<"withdrawal">().oneOf(["withdrawal"]).required(),
    finding: id(),
    reason: string().strict().trim().required().min(SHORTEST_REASON).max(400),
  }),
  workPhoto: object({
    ...base,
    kind: string<"workPhoto">().oneOf(["workPhoto"]).required(),
    step: string().strict().max(60).defined(),
    /** The finding that it shows, by its submission; empty: none. */
    finding: string().strict().max(40).defined(),
    caption: string().strict().max(200).defined(),
    marks: array(
      object({
        x: number().strict().required().min(0).max(1),
        y: number().strict().required().min(0).max(1),
        radius: number().strict().required().min(0.005).max(1),
      }),
    )
      .max(12)
      .required(),
    base64: string().strict().max(5_000_000).required(),
  }),
};

export type OutgoingStep = InferType<typeof schemas.step> & { values: Record<string, string> };
export type OutgoingFinding = InferType<typeof schemas.finding> & { values: Record<string, string> };
export type OutgoingWorkPhoto = InferType<typeof schemas.workPhoto>;
export type OutgoingWithdrawal = InferType<typeof schemas.withdrawal>;
export type OutgoingWork = OutgoingStep | OutgoingFinding | OutgoingWithdrawal | OutgoingWorkPhoto;

/** An entry as a tablet sent it, or undefined when it is none. */
export function outgoingWorkOf(item: unknown): OutgoingWork | undefined {
  const kind = typeof item === "object" && item !== null ? (item as { kind?: unknown }).kind : undefined;
  if (typeof kind !== "string" || !Object.hasOwn(schemas, kind)) return undefined;
  const schema = schemas[kind as keyof typeof schemas];
  return schema.isValidSync(item) ? (schema.cast(item) as OutgoingWork) : undefined;
}
