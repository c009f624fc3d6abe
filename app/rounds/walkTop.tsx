/** The top of a walked round: how far, and what the network does, in words. */
import { networkWords, troublesOfRounds, type useOutbox } from "~/device/useOutbox";

type Outbox = ReturnType<typeof useOutbox>;

export function WalkTop({
  round,
  index,
  count,
  outbox,
  onGo,
}: {
  round: { id: string; name: string };
  index: number;
  count: number;
  outbox: Outbox;
  onGo(index: number): void;
}) {
  const { network, waiting } = outbox;
  const troubles = troublesOfRounds(outbox.items);
  const calm = network === "sent" && waiting.length === 0;
  return (
    <header>
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <span className="text-ink-2">
          {round.name} <strong className="ml-2 text-ink">{`${Math.min(index + 1, count)} of ${count}`}</strong>
        </span>
        <span role="status" className={`font-semibold ${calm ? "text-sea" : "text-ochre"}`}>
          {networkWords(network, waiting.length)}
          {troubles.length > 0 ? ` · ${troubles.length} need you` : ""}
        </span>
        <span className="flex gap-5">
          {index > 0 ? (
            <button type="button" className="min-h-11 text-ink-2" onClick={() => onGo(index - 1)}>
              Back
            </button>
          ) : null}
          <a href={`/rounds/${round.id}`} className="inline-flex min-h-11 items-center text-ink-2">
            Leave
          </a>
        </span>
      </div>
      <div
        className="mt-1 h-1.5 rounded-full bg-line"
        role="progressbar"
        aria-label="Points dealt with"
        aria-valuemin={0}
        aria-valuemax={count}
        aria-valuenow={index}
      >
        <div className="h-full rounded-full bg-sea" style={{ width: `${(100 * index) / Math.max(1, count)}%` }} />
      </div>
      {network === "signIn" ? (
        <p className="mt-2 border-l-4 border-ochre bg-ochre-soft px-3 py-2">
          <>
            You were signed out. Nothing is lost:{" "}
            {
              <a href={`/sign-in?to=/rounds/${round.id}/walk`} className="way">
                sign in again
              </a>
            }
            , and what is kept here is sent.
          </>
        </p>
      ) : null}
    </header>
  );
}
