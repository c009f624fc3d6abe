/** What is typed at one point of a walk, and what it is judged to be. */
import { useRef, useState } from "react";
import type { UnitPreference } from "@core";
import type { Walk } from "~/device/store.client";
import type { WalkPoint } from "~/domain/rounds/index.server";
import { useSite } from "~/ui/site";
import { emptyEntry, judgeEntry, repeatsOf, type Entry, type EntryField } from "./entry";
import { inNextUnit, pressed, signTurned, unitOf } from "./figure";
import { isAnswered } from "./keptReading";

/** `units`: those that figures without one are taken in; `at`: the moment of the reading. */
export function useWalkEntry(
  point: WalkPoint,
  carried: Walk["conditions"][string] | undefined,
  units: UnitPreference,
  at: number,
) {
  const { units: shown } = useSite();
  const [entry, setEntry] = useState<Entry>({ ...emptyEntry, ...carried });
  const [field, setField] = useState<EntryField>(point.readState === "cycle" ? "least" : "value");
  // nothing is held against what is still being typed
  const [tried, setTried] = useState(false);
  const [repeats, setRepeats] = useState<readonly number[]>([]);
  const [reason, setReason] = useState("");
  const inputs = useRef<Partial<Record<EntryField, HTMLInputElement | null>>>({});

  const judged = judgeEntry(entry, point, at, units);
  const settled =
    repeats.length > 0 && judged.value !== null ? repeatsOf([...repeats, judged.value], point, judged.expected) : null;
  const set = (name: EntryField, value: string) => setEntry((e) => ({ ...e, [name]: value }));
  const go = (name: EntryField) => {
    setField(name);
    inputs.current[name]?.focus();
  };
  const change = (text: string) => {
    set(field, text);
    go(field);
  };

  return {
    entry,
    field,
    judged,
    settled,
    repeats,
    reason,
    tried,
    problems: tried ? judged.problems : {},
    hold(name: EntryField, input: HTMLInputElement | null) {
      inputs.current[name] = input;
    },
    set,
    setField,
    setReason,
    unit: unitOf(entry[field], field, point, shown),
    press: (key: string) => change(pressed(entry[field], key)),
    turnSign: () => change(signTurned(entry[field])),
    nextUnit: () => change(inNextUnit(entry[field], field, point, shown)),
    readAgain() {
      setRepeats((before) => [...before, judged.value!]);
      set("value", "");
      go("value");
    },
    /** May it be kept? Where not, what is in the way is shown: the field, or the question. */
    try(): boolean {
      setTried(true);
      const first = (Object.keys(judged.problems) as EntryField[])[0];
      if (first) go(first);
      return !first && isAnswered({ judged, reason, settled });
    },
  };
}

export type WalkEntry = ReturnType<typeof useWalkEntry>;
