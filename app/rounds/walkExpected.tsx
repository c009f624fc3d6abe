/** Beside the field: what is expected and what it was last time, or the question about a value that is odd. */
import { quantityOf } from "@core";
import type { WalkPoint } from "~/domain/rounds/index.server";
import { momentText, useShow, useSite } from "~/ui/site";
import type { WalkEntry } from "./useWalkEntry";

const keepReasons = ["Read twice, the same", "Load was different", "Known, being worked on"];

function Question({ typing }: { typing: WalkEntry }) {
  const { judged, settled, reason, setReason } = typing;
  return (
    <div className="border-l-4 border-verm bg-verm-soft px-3.5 py-2">
      <p>
        <strong>{judged.question?.message}</strong> {settled?.message}
      </p>
      {settled && settled.value !== null ? null : (
        <p className="mt-1.5 flex flex-wrap gap-2">
          {keepReasons.map((r) => (
            <button
              key={r}
              type="button"
              aria-pressed={reason === r}
              onClick={() => setReason(reason === r ? "" : r)}
              className={
                "min-h-11 rounded-[3px] border px-3 text-sm " +
                `${reason === r ? "border-sea bg-sea-soft font-semibold" : "border-line-2 bg-sheet"}`
              }
            >
              {r}
            </button>
          ))}
        </p>
      )}
    </div>
  );
}

export function WalkExpected({ point, typing }: { point: WalkPoint; typing: WalkEntry }) {
  const site = useSite();
  const show = useShow();
  const { entry, judged, settled, tried } = typing;
  const wording = (core: number) => show(core, point.quantity, { unit: point.unit });
  if (judged.question && tried) return <Question typing={typing} />;
  return (
    <p className="text-ink-2">
      {judged.expected ? (
        <>
          <>
            Expect{" "}
            {
              <strong className="text-ink">
                {`${wording(Math.max(quantityOf(point.quantity).least, judged.expected.low))} to ${wording(judged.expected.high)}`}
              </strong>
            }
            {entry.temperature || entry.pressure ? " under these conditions" : " at the usual conditions"}
            {judged.expected.beyondSeen ? ", less sure: it was never read like this" : ""}.
          </>{" "}
        </>
      ) : (
        "No expected range yet. "
      )}
      {point.last
        ? `Last time ${wording(point.last.raw)}${
            point.last.temperature === null || point.isOilTemperature
              ? ""
              : ` at ${show(point.last.temperature, "oilTemperature")}`
          }, ${momentText(point.last.at, site)}.`
        : "Never read before."}
      {settled ? ` ${settled.message}` : ""}
    </p>
  );
}
