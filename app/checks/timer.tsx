/** A running time limit that nobody can overlook. */
import { useEffect, useState } from "react";

export function TimeLimit({
  seconds,
  then,
  breakOff = false,
}: {
  seconds: number;
  then: string;
  /** The upper limit is passed: whatever the clock says. */ breakOff?: boolean;
}) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [left, setLeft] = useState(seconds);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setLeft(Math.max(0, seconds - (performance.now() - startedAt) / 1000)), 100);
    return () => clearInterval(timer);
  }, [startedAt, seconds]);
  const over = breakOff || (startedAt !== null && left <= 0);
  const waiting = startedAt === null ? "border-line-2 bg-sheet" : "border-ochre bg-ochre-soft";
  return (
    <div
      className={`mb-4 border-l-8 px-4 py-3 ${over ? "border-verm bg-verm text-paper" : waiting}`}
      role={over ? "alert" : undefined}
    >
      {over ? (
        <p className="text-[2.4rem] leading-tight font-bold">{then}</p>
      ) : (
        <p>
          <strong className="text-[1.6rem]">{Math.ceil(left)} s</strong>{" "}
          <span className="ml-2">
            {startedAt === null
              ? `The limit is ${seconds} s. Start the clock as you begin.`
              : `then: ${then.toLowerCase()}`}
          </span>
        </p>
      )}
      <p className="mt-2">
        <button
          type="button"
          className={`min-h-11 rounded-[3px] border px-4 py-2 font-semibold ${over ? "border-paper text-paper" : "border-line-2 text-sea"}`}
          onClick={() => {
            setStartedAt(startedAt === null || over ? performance.now() : null);
            setLeft(seconds);
          }}
        >
          {startedAt === null ? "Start the clock" : over ? "Start again" : "Stop the clock"}
        </button>
      </p>
    </div>
  );
}
