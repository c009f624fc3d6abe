/** Photographs of work: taken, marked, and shown with their marks. */
import { useEffect, useState, type CSSProperties, type KeyboardEvent } from "react";
import type { RunPhoto } from "~/domain/runs/index";
import { Button, fieldClass } from "~/ui/form";
import type { Run } from "./useRun";
import { whoOf } from "./who";

interface Mark {
  x: number;
  y: number;
  radius: number;
}

const RADIUS = 0.07;
const MOVE = 0.02;
const MOST_MARKS = 12;
const within = (share: number) => Math.min(1, Math.max(0, share));

const source = (photo: { id: string; base64?: string }) =>
  photo.base64 ? `data:image/jpeg;base64,${photo.base64}` : `/work/photos/${photo.id}`;

/** White within black: seen on oil and on steel alike. */
const ringStyle = (m: Mark): CSSProperties => ({
  left: `${m.x * 100}%`,
  top: `${m.y * 100}%`,
  width: `${m.radius * 200}%`,
  aspectRatio: 1,
  transform: "translate(-50%, -50%)",
  border: "3px solid #fff",
  boxShadow: "0 0 0 2px #000, inset 0 0 0 1.5px #000",
});

function Rings({ marks }: { marks: readonly Mark[] }) {
  return (
    <>
      {marks.map((m, i) => (
        <span key={i} aria-hidden="true" className="pointer-events-none absolute rounded-full" style={ringStyle(m)} />
      ))}
    </>
  );
}

export function PhotoStrip({ photos }: { photos: readonly (RunPhoto & { base64?: string })[] }) {
  return (
    <ul className="mt-1 flex flex-wrap gap-3 sm:ml-10">
      {photos.map((p) => (
        <li key={p.id} className="w-44 text-sm text-ink-2">
          <a href={p.base64 ? undefined : `/work/photos/${p.id}`} className="relative block">
            <img
              src={source(p)}
              alt={p.caption || "Photograph without a caption"}
              loading="lazy"
              className="block w-full rounded-[3px]"
            />
            <Rings marks={p.marks} />
          </a>
          {p.caption || "no caption"}, {whoOf(p)}
        </li>
      ))}
    </ul>
  );
}

/** A picture just taken: tap where to look, say what it shows, keep it. */
export function PhotoTaker({
  file,
  run,
  step,
  finding,
  onEnd,
}: {
  file: File;
  run: Run;
  step: string;
  finding: string;
  onEnd(): void;
}) {
  const [picture, setPicture] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const [marks, setMarks] = useState<Mark[]>([]);
  const [caption, setCaption] = useState("");
  useEffect(() => {
    let gone = false;
    void import("~/device/photo.client")
      .then(({ smallPhoto }) => smallPhoto(file))
      .then(
        ({ base64 }) => (gone ? undefined : setPicture(base64)),
        () => (gone ? undefined : setFailed(true)),
      );
    return () => {
      gone = true;
    };
  }, [file]);
  if (failed)
    return (
      <p className="mt-2 text-verm">
        That file is no picture that this tablet can read.{" "}
        <button type="button" className="way" onClick={onEnd}>
          Leave it
        </button>
      </p>
    );
  if (!picture) return <p className="mt-2 text-ink-2">Making the picture ready …</p>;
  const add = (x: number, y: number) =>
    setMarks((m) => (m.length < MOST_MARKS ? [...m, { x: within(x), y: within(y), radius: RADIUS }] : m));
  const move = (index: number) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-MOVE, 0], ArrowRight: [MOVE, 0], ArrowUp: [0, -MOVE], ArrowDown: [0, MOVE] }[event.key];
    if (by) {
      event.preventDefault();
      setMarks((all) =>
        all.map((m, i) => (i === index ? { ...m, x: within(m.x + by[0]!), y: within(m.y + by[1]!) } : m)),
      );
    } else if (event.key === "Delete" || event.key === "Backspace")
      setMarks((all) => all.filter((_, i) => i !== index));
  };
  return (
    <div className="mt-2 border-l-4 border-line-2 bg-sheet px-3.5 py-2">
      <p className="text-sm text-ink-2">Tap where to look; tap a ring to take it away.</p>
      <span
        className="relative mt-1 block w-full max-w-md cursor-crosshair"
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          add((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height);
        }}
      >
        <img src={`data:image/jpeg;base64,${picture}`} alt="The photograph just taken" className="block w-full" />
        {marks.map((m, i) => (
          <button
            key={i}
            type="button"
            aria-label={`Ring ${i + 1}: arrows move it, Delete takes it away`}
            onKeyDown={move(i)}
            onClick={(e) => {
              e.stopPropagation();
              setMarks((all) => all.filter((_, j) => j !== i));
            }}
            className="absolute rounded-full focus-visible:bg-sea-soft/50"
            style={ringStyle(m)}
          />
        ))}
      </span>
      <label className="mt-2 block text-sm text-ink-2">
        What it shows
        <input
          className={`${fieldClass} min-h-12`}
          value={caption}
          maxLength={200}
          onChange={(e) => setCaption(e.target.value)}
        />
      </label>
      <p className="mt-2 flex flex-wrap gap-4">
        <Button
          type="button"
          onClick={() =>
            void run.keep({ kind: "workPhoto", step, finding, caption, marks, base64: picture }).then(() => onEnd())
          }
        >
          Keep the photograph
        </Button>
        <button type="button" className="min-h-11 text-ink-2" onClick={() => add(0.5, 0.5)}>
          Ring in the middle
        </button>
        <button type="button" className="min-h-11 text-ink-2" onClick={onEnd}>
          Leave it
        </button>
      </p>
    </div>
  );
}
