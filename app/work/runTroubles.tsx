/** Entries that the server would not take as they are: shown one by one, and settled by a person. */
import { answerText } from "@core";
import type { KeptOfWork } from "~/device/store.client";
import { Button } from "~/ui/form";
import type { Run } from "./useRun";

export function RunTroubles({ run }: { run: Run }) {
  if (run.troubles.length === 0) return null;
  return (
    <section className="mt-3 border-l-4 border-verm bg-verm-soft px-3.5 py-2" role="alert">
      <h2>{`${run.troubles.length} ${run.troubles.length === 1 ? "entry needs" : "entries need"} you`}</h2>
      <ul>
        {run.troubles.map((item) => (
          <Trouble key={item.submission} item={item} run={run} />
        ))}
      </ul>
    </section>
  );
}

const done = { done: "done", skipped: "skipped", reopened: "taken back", released: "released" };

function Trouble({ item, run }: { item: KeptOfWork; run: Run }) {
  const stand = item.kind === "step" ? run.stand.steps.find((s) => s.step.id === item.step) : undefined;
  const answer = item.kind === "step" ? answerText(stand?.step.ask, item.values) : "";
  const own =
    item.kind === "step"
      ? `${(stand?.step.text ?? item.step).replace(/\.$/, "")}: ${done[item.entry]}${answer ? `, ${answer}` : ""}`
      : item.kind === "finding"
        ? `Finding: ${Object.values(item.values).join(", ")}`
        : item.kind === "withdrawal"
          ? `A finding withdrawn: ${item.reason}`
          : `Photograph${item.caption ? `: ${item.caption}` : ""}`;
  const conflict = item.problem?.fate === "conflict";
  return (
    <li className="ruled py-2">
      <p className="font-semibold">{`Yours: ${own}`}</p>
      <p>{item.problem?.message}</p>
      <p className="mt-2 flex flex-wrap gap-3">
        {conflict && stand ? (
          <Button type="button" onClick={() => void run.settle(item, "again", stand.last ?? "")}>
            Record mine as well
          </Button>
        ) : (
          <Button type="button" tone="plain" onClick={() => void run.settle(item, "again", stand?.last ?? "")}>
            Send again
          </Button>
        )}
        <Button type="button" tone="danger" onClick={() => void run.settle(item, "drop")}>
          {conflict ? "Keep theirs" : "Discard"}
        </Button>
      </p>
    </li>
  );
}
