/** One point of a round: where it is, the condition it is read under, large figures, own keys. */
import { useRef, useState } from "react";
import { lowerFirst, preferredUnit, quantityOf, type UnitPreference } from "@core";
import type { Walk } from "~/device/store.client";
import type { useOutbox } from "~/device/useOutbox";
import { uuid } from "~/device/uuid";
import type { StripPart, WalkPoint } from "~/domain/rounds/index.server";
import { CircuitStrip } from "~/ui/circuitStrip";
import { useShow, useSite } from "~/ui/site";
import type { EntryField } from "./entry";
import { keptFields } from "./keptReading";
import { Keypad } from "./keypad";
import { useWalkEntry } from "./useWalkEntry";
import { conditionsOf, WalkConditions } from "./walkConditions";
import { WalkExpected } from "./walkExpected";
import { WalkInput } from "./walkInput";
import { WalkSkip } from "./walkSkip";

/** A point is read at most three times: then the middle one speaks. */
const MOST_REPEATS = 2;

interface Props {
  round: { id: string };
  point: WalkPoint;
  parts: readonly StripPart[];
  walk: Walk;
  present(): number;
  user: { id: string; units: UnitPreference };
  outbox: ReturnType<typeof useOutbox>;
  onDone(how: "read" | "skipped", kept?: { conditions: Walk["conditions"][string]; held: string[] }): void;
}

export function WalkPointScreen({ round, point, parts, walk, present, user, outbox, onDone }: Props) {
  const { units } = useSite();
  const show = useShow();
  const at = present();
  const typing = useWalkEntry(point, walk.conditions[point.machineId], user.units, at);
  const { entry, judged, settled, repeats, reason } = typing;
  const [held, setHeld] = useState<readonly string[]>(walk.held[point.machineId] ?? []);
  const [skipping, setSkipping] = useState(false);
  const [photo, setPhoto] = useState<{ mediaType: string; base64: string } | null>(null);
  const [photoProblem, setPhotoProblem] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const conditions = conditionsOf(point);
  const base = () => ({ submission: uuid(), roundId: round.id, pointId: point.id, at, by: user.id });

  async function keepReading() {
    if (!typing.try()) return;
    const store = await import("~/device/store.client");
    const open = conditions.filter((c) => !held.includes(c));
    const read = { entry, judged, settled, repeats, reason, open, at };
    // whoever is signed in when it is sent, and in whatever units: an entry says what it was typed in, and by whom
    const fields = keptFields(read, point, units, (core) => show(core, point.quantity, { unit: point.unit }));
    const reading = { ...base(), kind: "reading" as const, fields };
    await store.keep(reading);
    if (photo) await store.keep({ ...base(), kind: "photo", reading: reading.submission, ...photo });
    void store.holdOn();
    await outbox.look();
    const { pressure, hours } = entry;
    const temperature = point.isOilTemperature ? fields.temperature! : entry.temperature;
    onDone("read", { conditions: { temperature, pressure, hours }, held: [...held] });
    void outbox.send();
  }

  async function skip(why: string) {
    const store = await import("~/device/store.client");
    await store.keep({ ...base(), kind: "skip", reason: why });
    await outbox.look();
    onDone("skipped");
    void outbox.send();
  }

  async function takePhoto(picked: File | undefined) {
    if (!picked) return;
    setPhotoProblem("");
    try {
      setPhoto(await (await import("~/device/photo.client")).smallPhoto(picked));
    } catch {
      setPhotoProblem("That file is no picture that this tablet can read.");
    }
  }

  const input = (name: EntryField, label: string, unit: string, large = false) => (
    <WalkInput {...{ name, label, unit, large, typing }} onEnter={() => void keepReading()} />
  );
  const cycle = point.readState === "cycle";
  return (
    <>
      <h1 className="mt-3 text-[1.75rem]">
        {point.machine}, {point.component}: {lowerFirst(point.name)}
      </h1>
      {walk.done[point.id] ? (
        <p className="mt-1 text-ochre">
          <>Already {walk.done[point.id]} on this round.</>
        </p>
      ) : null}
      {parts.length > 0 ? (
        <div className="mt-1 max-sm:hidden">
          <CircuitStrip parts={parts} here={point.componentId} label={point.circuit} />
        </div>
      ) : null}
      <p className="mt-1 border-l-4 border-ochre bg-ochre-soft px-3.5 py-2 text-[0.95rem]">{point.caution}</p>
      <WalkConditions conditions={conditions} held={held} onHeld={setHeld} />
      <div className={`mt-2.5 grid gap-3 max-sm:mt-1.5 ${point.isOilTemperature ? "grid-cols-2" : "grid-cols-3"}`}>
        {point.isOilTemperature ? null : input("temperature", "Oil", preferredUnit("oilTemperature", units))}
        {input("pressure", "Load", preferredUnit("loadPressure", units))}
        {input("hours", "Hours", "h")}
      </div>
      <div className={`mt-2.5 grid items-end gap-3 ${cycle ? "grid-cols-2" : ""}`}>
        {cycle ? input("least", "Least over the cycle", point.unit) : null}
        {input("value", cycle ? "Greatest over the cycle" : quantityOf(point.quantity).label, point.unit, true)}
      </div>
      <div id="w-expected" aria-live="polite" className="mt-2 min-h-[3.2rem] text-[0.95rem]">
        <WalkExpected point={point} typing={typing} />
        {photo ? <p className="text-sm text-sea">A photograph goes with it.</p> : null}
        {photoProblem ? <p className="text-sm text-verm">{photoProblem}</p> : null}
      </div>
      {skipping ? <WalkSkip onSkip={(why) => void skip(why)} onStay={() => setSkipping(false)} /> : null}
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        className="hidden"
        aria-label="Photograph"
        onChange={(e) => void takePhoto(e.target.files?.[0])}
      />
      <div className="mt-2 max-sm:sticky max-sm:bottom-0 max-sm:-mx-4 max-sm:border-t max-sm:border-line max-sm:bg-paper max-sm:px-4 max-sm:py-2">
        <Keypad
          onKey={typing.press}
          onSign={typing.turnSign}
          onUnit={typing.nextUnit}
          unit={typing.unit}
          actions={[
            {
              label: "Read again",
              disabled: judged.value === null || repeats.length >= MOST_REPEATS,
              onPress: typing.readAgain,
            },
            { label: "Skip", onPress: () => setSkipping(true) },
            { label: photo ? "Photo again" : "Photo", onPress: () => file.current?.click() },
          ]}
          main={{ label: "Keep, next", onPress: () => void keepReading() }}
        />
      </div>
    </>
  );
}
