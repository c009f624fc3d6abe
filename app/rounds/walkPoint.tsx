/** One point of a round: where it is, the condition it is read under, large figures, own keys. */
import { useRef, useState } from "react";
import { lowerFirst, formatQuantity, parseQuantity, preferredUnit, quantityOf, readingStates, unitsOf } from "@core";
import { CircuitStrip } from "~/ui/circuitStrip";
import { localInput, momentText, useShow, useSite } from "~/ui/site";
import { emptyEntry, judgeEntry, repeatsOf, type Entry, type EntryField } from "./entry";
import { withUnit } from "~/ui/typed";
import { Keypad } from "./keypad";
import type { StripPart, WalkPoint } from "~/domain/rounds/queries.server";
import type { Walk } from "~/device/store.client";
import type { useOutbox } from "~/device/useOutbox";
import { uuid } from "~/device/uuid";
import { walkPoint as texts } from "./texts";

const skipReasons = [texts.machineStands, texts.oilTooCold, texts.cannotBeReached, texts.instrumentMissing];
const keepReasons = [texts.readTwiceTheSame, texts.loadWasDifferent, texts.knownBeingWorkedOn];

interface Props {
  round: { id: string };
  point: WalkPoint;
  parts: readonly StripPart[];
  walk: Walk;
  present(): number;
  user: { id: string; units: Parameters<typeof judgeEntry>[3] };
  outbox: ReturnType<typeof useOutbox>;
  onDone(how: "read" | "skipped", kept?: { conditions: Walk["conditions"][string]; held: string[] }): void;
}

export function WalkPointScreen({ round, point, parts, walk, present, user, outbox, onDone }: Props) {
  const site = useSite();
  const show = useShow();
  const carried = walk.conditions[point.machineId];
  const [entry, setEntry] = useState<Entry>({ ...emptyEntry, ...carried });
  const [field, setField] = useState<EntryField>(point.readState === "cycle" ? "least" : "value");
  const [said, setSaid] = useState(false);
  const [held, setHeld] = useState<readonly string[]>(walk.held[point.machineId] ?? []);
  const [repeats, setRepeats] = useState<readonly number[]>([]);
  const [reason, setReason] = useState("");
  const [skipping, setSkipping] = useState(false);
  const [photo, setPhoto] = useState<{ mediaType: string; base64: string } | null>(null);
  const [photoProblem, setPhotoProblem] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const fields = useRef<Partial<Record<EntryField, HTMLInputElement | null>>>({});
  const at = present();
  const judged = judgeEntry(entry, point, at, user.units);
  const problems = said ? judged.problems : {};
  const settled =
    repeats.length > 0 && judged.value !== null ? repeatsOf([...repeats, judged.value], point, judged.expected) : null;
  const wording = (core: number) => show(core, point.quantity, { unit: point.unit });
  const conditions = [
    ...point.conditions
      .split(",")
      .map((c) => c.trim())
      .filter(Boolean),
    texts.read(readingStates[point.readState]),
    ...(point.instrument ? [texts.withText(point.instrument.tag)] : []),
  ];

  const set = (name: EntryField, value: string) => setEntry((e) => ({ ...e, [name]: value }));
  const go = (name: EntryField) => {
    setField(name);
    fields.current[name]?.focus();
  };
  const press = (key: string) => {
    // digits go before the unit, where one is written
    const [, figure = "", unit = ""] = /^([^a-zµ°"%³]*?)(\s*[a-zµ°"%³].*)?$/i.exec(entry[field]) ?? [];
    set(field, (key === "⌫" ? figure.slice(0, -1) : figure + key) + unit);
    go(field);
  };

  const quantityAt = (name: EntryField) =>
    name === "temperature"
      ? "oilTemperature"
      : name === "pressure"
        ? "loadPressure"
        : name === "hours"
          ? "runningHours"
          : point.quantity;
  /** The unit that a field is in now: as typed, else the one that is taken. */
  function unitOf(name: EntryField): string {
    const parsed = parseQuantity(entry[name] || "1", quantityAt(name), { assume: bareUnit(name) });
    return parsed.ok ? parsed.parsed.unit : bareUnit(name);
  }
  function bareUnit(name: EntryField): string {
    return name === "value" || name === "least" ? point.unit : preferredUnit(quantityAt(name), site.units);
  }
  function turnSign() {
    set(field, /^[-−]/.test(entry[field]) ? entry[field].slice(1) : `-${entry[field]}`);
    go(field);
  }
  function nextUnit() {
    const symbols = unitsOf(quantityOf(quantityAt(field)).dimension).map((u) => u.symbol);
    const next = symbols[(symbols.indexOf(unitOf(field)) + 1) % symbols.length]!;
    const figure = entry[field].replace(/[a-zµ°"%³/·].*$/i, "").trim();
    set(field, next === bareUnit(field) ? figure : `${figure} ${next}`);
    go(field);
  }

  async function keepReading() {
    setSaid(true);
    const first = (Object.keys(judged.problems) as EntryField[])[0];
    if (first) return go(first);
    // repeated until two agree, or three: then nothing more is asked
    if (judged.question && !reason && !(settled && settled.value !== null)) return;
    const store = await import("~/device/store.client");
    const submission = uuid();
    const value =
      settled?.value !== null && settled !== null ? `${Number(fromText(settled.value))} ${point.unit}` : entry.value;
    const open = conditions.filter((c) => !held.includes(c));
    const note = [
      open.length > 0 ? texts.notConfirmed(open.join("; ")) : "",
      repeats.length ? texts.readTimes(repeats.length + 1, [...repeats, judged.value!].map(wording).join(", ")) : "",
    ]
      .filter(Boolean)
      .join(" ");
    // whoever is signed in when it is sent, and in whatever units: an entry says what it was typed in, and by whom
    const condition = (name: "temperature" | "pressure") =>
      withUnit(entry[name], preferredUnit(name === "temperature" ? "oilTemperature" : "loadPressure", site.units));
    const temperature = point.isOilTemperature ? withUnit(value, point.unit) : condition("temperature");
    await store.keep({
      kind: "reading",
      submission,
      roundId: round.id,
      pointId: point.id,
      at,
      by: user.id,
      fields: {
        value: withUnit(value, point.unit),
        least: point.readState === "cycle" ? withUnit(entry.least, point.unit) : "",
        temperature,
        pressure: condition("pressure"),
        hours: entry.hours,
        speed: "",
        takenAt: localInput(at, point.timeZone),
        state: point.readState,
        instrumentId: point.instrument?.id ?? "",
        note,
        keptBecause: judged.question ? reason || settled?.message || "" : "",
      },
    });
    if (photo)
      await store.keep({
        kind: "photo",
        submission: uuid(),
        roundId: round.id,
        pointId: point.id,
        at,
        by: user.id,
        reading: submission,
        ...photo,
      });
    void store.holdOn();
    await outbox.look();
    onDone("read", {
      conditions: {
        temperature: point.isOilTemperature ? withUnit(value, point.unit) : entry.temperature,
        pressure: entry.pressure,
        hours: entry.hours,
      },
      held: [...held],
    });
    void outbox.send();
  }

  /** A core value as the number that is typed in the point's unit. */
  function fromText(core: number): string {
    return formatQuantity(core, point.quantity, { unit: point.unit, digits: 5 })
      .split("\u00a0")[0]!
      .replaceAll("\u202f", "")
      .replace("−", "-");
  }

  async function skip(why: string) {
    const store = await import("~/device/store.client");
    await store.keep({
      kind: "skip",
      submission: uuid(),
      roundId: round.id,
      pointId: point.id,
      at,
      by: user.id,
      reason: why,
    });
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
      setPhotoProblem(texts.thatFileIsNo);
    }
  }

  const input = (name: EntryField, label: string, unit: string, large = false) => (
    <div className="min-w-0">
      <label htmlFor={`w-${name}`} className="mb-0.5 block text-sm text-ink-2">
        {label}
      </label>
      <span className="relative block">
        <input
          id={`w-${name}`}
          ref={(e) => {
            fields.current[name] = e;
          }}
          value={entry[name]}
          inputMode="none"
          autoComplete="off"
          maxLength={40}
          aria-invalid={problems[name] ? true : undefined}
          aria-describedby={problems[name] ? `p-w-${name}` : name === "value" ? "w-expected" : undefined}
          autoFocus={name === field}
          onFocus={() => setField(name)}
          onChange={(e) => set(name, e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              void keepReading();
            }
          }}
          className={
            `w-full min-w-0 rounded-[3px] border bg-sheet px-3.5 ` +
            `${large ? "py-2.5 text-[2.3rem] leading-tight" : "min-h-14 text-[1.45rem]"} ` +
            `${problems[name] ? "border-2 border-verm" : field === name ? "border-2 border-sea" : "border-line-2"}`
          }
        />
        <span className="pointer-events-none absolute top-1/2 right-3.5 -translate-y-1/2 text-ink-2">
          {/[a-z°µ"%]/i.test(entry[name]) ? "" : unit}
        </span>
      </span>
      {problems[name] ? (
        <p id={`p-w-${name}`} className="mt-1 text-sm font-medium text-verm">
          {problems[name]}
        </p>
      ) : null}
    </div>
  );

  return (
    <>
      <h1 className="mt-3 text-[1.75rem]">
        {point.machine}, {point.component}: {lowerFirst(point.name)}
      </h1>
      {walk.done[point.id] ? <p className="mt-1 text-ochre">{texts.alreadyOnThisRound(walk.done[point.id])}</p> : null}
      {parts.length > 0 ? (
        <div className="mt-1 max-sm:hidden">
          <CircuitStrip parts={parts} here={point.componentId} label={point.circuit} />
        </div>
      ) : null}
      <p className="mt-1 border-l-4 border-ochre bg-ochre-soft px-3.5 py-2 text-[0.95rem]">{point.caution}</p>
      <div className="mt-2.5 flex flex-wrap gap-2 max-sm:mt-1.5" role="group" aria-label={texts.lookAndTickWhat}>
        {conditions.map((c) => {
          const seen = held.includes(c);
          return (
            <button
              key={c}
              type="button"
              aria-pressed={seen}
              onClick={() => setHeld((h) => (seen ? h.filter((x) => x !== c) : [...h, c]))}
              className={
                `min-h-11 flex-1 rounded-[3px] border px-3 text-sm ` +
                `${seen ? "border-sea bg-sea-soft font-semibold text-sea" : "border-line-2 bg-sheet text-ink"}`
              }
            >
              {seen ? "✓ " : "○ "}
              {c}
            </button>
          );
        })}
      </div>
      <div className={`mt-2.5 grid gap-3 max-sm:mt-1.5 ${point.isOilTemperature ? "grid-cols-2" : "grid-cols-3"}`}>
        {point.isOilTemperature ? null : input("temperature", "Oil", preferredUnit("oilTemperature", site.units))}
        {input("pressure", "Load", preferredUnit("loadPressure", site.units))}
        {input("hours", "Hours", "h")}
      </div>
      <div className={`mt-2.5 grid items-end gap-3 ${point.readState === "cycle" ? "grid-cols-2" : ""}`}>
        {point.readState === "cycle" ? input("least", texts.leastOverTheCycle, point.unit) : null}
        {input(
          "value",
          point.readState === "cycle" ? texts.greatestOverTheCycle : quantityOf(point.quantity).label,
          point.unit,
          true,
        )}
      </div>
      <div id="w-expected" aria-live="polite" className="mt-2 min-h-[3.2rem] text-[0.95rem]">
        {judged.question && said ? (
          <div className="border-l-4 border-verm bg-verm-soft px-3.5 py-2">
            <p>
              <strong>{judged.question.message}</strong> {settled?.message}
            </p>
            {settled && settled.value !== null ? null : (
              <p className="mt-1.5 flex flex-wrap gap-2">
                {keepReasons.map((r) => (
                  <button
                    key={r}
                    type="button"
                    aria-pressed={reason === r}
                    onClick={() => setReason(reason === r ? "" : r)}
                    className={`min-h-11 rounded-[3px] border px-3 text-sm ${reason === r ? "border-sea bg-sea-soft font-semibold" : "border-line-2 bg-sheet"}`}
                  >
                    {r}
                  </button>
                ))}
              </p>
            )}
          </div>
        ) : (
          <p className="text-ink-2">
            {judged.expected ? (
              <>
                {texts.expect(
                  <strong className="text-ink">
                    {texts.to(
                      wording(Math.max(quantityOf(point.quantity).least, judged.expected.low)),
                      wording(judged.expected.high),
                    )}
                  </strong>,
                  entry.temperature || entry.pressure ? texts.underTheseConditions : texts.atTheUsualConditions,
                  judged.expected.beyondSeen ? texts.lessSureItWas : "",
                )}{" "}
              </>
            ) : (
              texts.noExpectedRangeYet
            )}
            {point.last ? (
              <>
                {texts.lastTime(
                  wording(point.last.raw),
                  point.last.temperature === null || point.isOilTemperature
                    ? ""
                    : texts.at(show(point.last.temperature, "oilTemperature")),
                  momentText(point.last.at, site),
                )}
              </>
            ) : (
              texts.neverReadBefore
            )}
            {settled ? ` ${settled.message}` : ""}
          </p>
        )}
        {photo ? <p className="text-sm text-sea">{texts.aPhotographGoesWith}</p> : null}
        {photoProblem ? <p className="text-sm text-verm">{photoProblem}</p> : null}
      </div>
      {skipping ? (
        <div className="mb-2 border-l-4 border-line-2 bg-sheet px-3.5 py-2">
          <p>{texts.whyIsItPassed}</p>
          <p className="mt-1.5 flex flex-wrap gap-2">
            {skipReasons.map((r) => (
              <button
                key={r}
                type="button"
                onClick={() => void skip(r)}
                className="min-h-11 rounded-[3px] border border-line-2 bg-paper px-3 text-sm"
              >
                {r}
              </button>
            ))}
            <button type="button" onClick={() => setSkipping(false)} className="min-h-11 px-3 text-sm text-ink-2">
              {texts.noReadIt}
            </button>
          </p>
        </div>
      ) : null}
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        className="hidden"
        aria-label={texts.photograph}
        onChange={(e) => void takePhoto(e.target.files?.[0])}
      />
      <div className="mt-2 max-sm:sticky max-sm:bottom-0 max-sm:-mx-4 max-sm:border-t max-sm:border-line max-sm:bg-paper max-sm:px-4 max-sm:py-2">
        <Keypad
          onKey={press}
          onSign={turnSign}
          onUnit={nextUnit}
          unit={unitOf(field)}
          actions={[
            {
              label: texts.readAgain,
              disabled: judged.value === null || repeats.length >= 2,
              onPress: () => {
                setRepeats((r) => [...r, judged.value!]);
                set("value", "");
                go("value");
              },
            },
            { label: texts.skip, onPress: () => setSkipping(true) },
            { label: photo ? texts.photoAgain : "Photo", onPress: () => file.current?.click() },
          ]}
          main={{ label: texts.keepNext, onPress: () => void keepReading() }}
        />
      </div>
    </>
  );
}
