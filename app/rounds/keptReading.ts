/** One reading of a walk as the tablet keeps it: with the units that it was typed in, whoever sends it. */
import { preferredUnit, type UnitPreference } from "@core";
import type { Outgoing } from "~/domain/rounds/index";
import type { WalkPoint } from "~/domain/rounds/index.server";
import { localInput } from "~/ui/site";
import { withUnit } from "~/ui/typed";
import type { Entry, Judged, repeatsOf } from "./entry";
import { typedFigure } from "./figure";

export type Settled = ReturnType<typeof repeatsOf> | null;

export interface ReadEntry {
  entry: Entry;
  judged: Judged;
  /** What repeated readings came to; null: read once. */
  settled: Settled;
  /** Values before the one that stands in the field, core unit. */
  repeats: readonly number[];
  /** Why a doubtful value is kept; empty: nothing was asked, or the repeats answer it. */
  reason: string;
  /** Conditions that nobody ticked. */
  open: readonly string[];
  /** Epoch ms. */
  at: number;
}

type Fields = Extract<Outgoing, { kind: "reading" }>["fields"];

/** The value to keep, as typed: where it was read again, the one that the repeats came to. */
export const keptValue = ({ entry, settled }: Pick<ReadEntry, "entry" | "settled">, point: WalkPoint): string =>
  settled && settled.value !== null ? `${Number(typedFigure(settled.value, point))} ${point.unit}` : entry.value;

/** May it be kept? A question wants a reason, or repeats that came to a value. */
export const isAnswered = ({ judged, reason, settled }: Pick<ReadEntry, "judged" | "reason" | "settled">): boolean =>
  !judged.question || reason !== "" || (settled !== null && settled.value !== null);

/** The fields of the reading form, for when it is sent. */
export function keptFields(
  read: ReadEntry,
  point: WalkPoint,
  units: UnitPreference,
  show: (core: number) => string,
): Fields {
  const { entry, judged, settled, repeats, reason, open, at } = read;
  const value = withUnit(keptValue(read, point), point.unit);
  const condition = (name: "temperature" | "pressure") =>
    withUnit(entry[name], preferredUnit(name === "temperature" ? "oilTemperature" : "loadPressure", units));
  const note = [
    open.length > 0 ? `Not confirmed: ${open.join("; ")}.` : "",
    repeats.length > 0 ? `Read ${repeats.length + 1} times: ${[...repeats, judged.value!].map(show).join(", ")}.` : "",
  ];
  return {
    value,
    least: point.readState === "cycle" ? withUnit(entry.least, point.unit) : "",
    temperature: point.isOilTemperature ? value : condition("temperature"),
    pressure: condition("pressure"),
    hours: entry.hours,
    speed: "",
    takenAt: localInput(at, point.timeZone),
    state: point.readState,
    instrumentId: point.instrument?.id ?? "",
    note: note.filter(Boolean).join(" "),
    keptBecause: judged.question ? reason || settled?.message || "" : "",
  };
}
