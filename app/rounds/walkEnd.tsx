/** The end of a round: what was read, what waits on the device, what the server would not take. */
import { useState } from "react";
import { Button } from "~/ui/form";
import type { WalkPoint } from "~/domain/rounds/index.server";
import type { KeptOfRound, Walk } from "~/device/store.client";
import { troublesOfRounds, type useOutbox } from "~/device/useOutbox";

interface Props {
  round: { id: string };
  points: readonly WalkPoint[];
  walk: Walk;
  outbox: ReturnType<typeof useOutbox>;
  onGo(index: number): void;
  onAgain(): void;
}

export function WalkEnd({ round, points, walk, outbox, onGo, onAgain }: Props) {
  const { waiting, network } = outbox;
  const troubles = troublesOfRounds(outbox.items);
  const read = Object.values(walk.done).filter((d) => d === "read").length;
  const skipped = Object.values(walk.done).length - read;
  const left = points.filter((p) => !walk.done[p.id]);
  return (
    <div className="mt-4">
      <h1>
        {troubles.length > 0
          ? `${troubles.length} ${troubles.length === 1 ? "entry needs" : "entries need"} you`
          : waiting.length > 0
            ? `Walked; ${waiting.length} still kept on this tablet`
            : "Walked, and all of it is sent"}
      </h1>
      <p className="mt-1 text-ink-2">{`${read} read${skipped ? `, ${skipped} passed over` : ""}, of ${points.length}.`}</p>
      {troubles.length > 0 ? (
        <ul className="mt-3">
          {troubles.map((t) => (
            <Trouble key={t.submission} item={t} point={points.find((p) => p.id === t.pointId)} outbox={outbox} />
          ))}
        </ul>
      ) : null}
      {waiting.length > 0 ? (
        <p className="mt-3">
          <Button type="button" onClick={() => void outbox.send()}>
            Send now
          </Button>{" "}
          <span className="ml-2 text-ink-2">
            {network === "noNetwork"
              ? "They are sent when the network is back, from this page or any other of Juncteral that is open."
              : ""}
          </span>
        </p>
      ) : null}
      {left.length > 0 ? (
        <section className="mt-5">
          <h2 className="ruled pb-1">Not dealt with</h2>
          <ul>
            {left.map((p) => (
              <li key={p.id} className="ruled">
                <button type="button" className="min-h-11 w-full text-left" onClick={() => onGo(points.indexOf(p))}>
                  {p.machine}, {p.component}: {p.name}
                </button>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <p className="mt-6 flex flex-wrap gap-4">
        <a href={`/rounds/${round.id}`} className="act">
          Leave the round
        </a>
        <button type="button" className="way" onClick={onAgain}>
          Walk it again
        </button>
      </p>
    </div>
  );
}

function Trouble({
  item,
  point,
  outbox,
}: {
  item: KeptOfRound;
  point: WalkPoint | undefined;
  outbox: Props["outbox"];
}) {
  const field =
    item.kind === "reading" && item.problem?.field && item.problem.field in item.fields ? item.problem.field : "value";
  const [text, setText] = useState(
    item.kind === "reading" ? ((item.fields as Record<string, string | undefined>)[field] ?? "") : "",
  );
  const act = async (what: "again" | "drop") => {
    const store = await import("~/device/store.client");
    if (what === "drop") await store.drop(item.submission);
    else if (item.kind === "reading") await store.replaceKept({ ...item, fields: { ...item.fields, [field]: text } });
    await outbox.send();
  };
  return (
    <li className="ruled py-3">
      <p className="font-semibold">
        {point ? `${point.machine}, ${point.component}: ${point.name}` : "A point that is gone"}
        {item.kind === "reading"
          ? `, ${item.fields.value}`
          : item.kind === "photo"
            ? ", a photograph"
            : item.kind === "move"
              ? ", a valve was moved"
              : ""}
      </p>
      <p className="text-verm">{item.problem?.message}</p>
      <p className="mt-2 flex flex-wrap items-end gap-3">
        {item.kind === "reading" ? (
          <>
            <label className="text-sm text-ink-2">
              {{
                value: "Value",
                takenAt: "Read at",
                hours: "Running hours",
                temperature: "Oil",
                pressure: "Load",
                least: "Least",
              }[field] ?? field}
              <input
                value={text}
                type={field === "takenAt" ? "datetime-local" : "text"}
                onChange={(e) => setText(e.target.value)}
                className="mt-0.5 block min-h-11 rounded-[3px] border border-line-2 bg-sheet px-3 text-ink"
              />
            </label>
            <Button type="button" onClick={() => void act("again")}>
              Send again
            </Button>
          </>
        ) : null}
        <Button type="button" tone="danger" onClick={() => void act("drop")}>
          {item.problem?.fate === "conflict" ? "Keep theirs" : "Discard"}
        </Button>
      </p>
    </li>
  );
}
