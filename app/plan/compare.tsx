/** Kept plans side by side: what each costs and where it puts what. */
import { useState } from "react";
import { Form } from "react-router";
import { moneyText } from "@core";
import type { KeptPlan } from "~/domain/plan/index.server";
import { Button } from "~/ui/form";
import { ConfirmButton } from "~/ui/confirm";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

export function Compare({
  kept,
  currency,
  mayEdit,
}: {
  kept: readonly KeptPlan[];
  currency: string;
  mayEdit: boolean;
}) {
  const site = useSite();
  const [picked, setChosen] = useState<string[] | null>(null);
  // until somebody chooses, the newest two
  const chosen = picked ?? kept.slice(0, 2).map((p) => p.id);
  if (kept.length === 0) return null;
  const shown = kept.filter((p) => chosen.includes(p.id)).slice(0, 3);
  const pieces = new Map(shown.flatMap((p) => p.lines.map((l) => [l.piece, l.label] as const)));
  const differ = [...pieces].filter(
    ([piece]) => new Set(shown.map((p) => p.lines.find((l) => l.piece === piece)?.option ?? "")).size > 1,
  );
  return (
    <Section
      title="Kept plans"
      aside={shown.length > 1 ? `${differ.length} of ${pieces.size} pieces differ` : undefined}
    >
      <div className="mb-2 flex flex-wrap gap-x-4 gap-y-1 text-sm">
        {kept.map((p) => (
          <label key={p.id} className="flex min-h-8 items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-sea"
              checked={chosen.includes(p.id)}
              onChange={(e) =>
                setChosen(e.target.checked ? [...chosen, p.id].slice(-3) : chosen.filter((id) => id !== p.id))
              }
            />
            {p.name}
          </label>
        ))}
      </div>
      {shown.length > 0 ? (
        <div className="overflow-x-auto">
          <table className="w-full text-sm">
            <thead>
              <tr className="ruled text-left">
                <th scope="col" className="py-1.5 pr-3 font-normal text-ink-2">
                  Plan
                </th>
                {shown.map((p) => (
                  <th key={p.id} scope="col" className="py-1.5 pr-3 align-bottom [overflow-wrap:anywhere]">
                    {p.name}
                    <span className="block font-normal text-ink-2">
                      {p.madeBy}, {dayText(p.madeAt, site)}
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {(
                [
                  ["Expected cost", (p) => moneyText(p.totals.expected, currency)],
                  ["One time in ten over", (p) => moneyText(p.totals.high, currency)],
                  ["Mean of the worst tenth", (p) => moneyText(p.totals.worst, currency)],
                  ["Failures to be expected", (p) => p.totals.failures.toFixed(1)],
                  ["Life thrown away", (p) => moneyText(p.totals.parts.life, currency)],
                  ["From the best, at most", (p) => `${(p.gap * 100).toFixed(p.gap < 0.01 ? 2 : 1)}\u00a0%`],
                ] as [string, (p: KeptPlan) => string][]
              ).map(([label, value]) => (
                <tr key={label} className="ruled">
                  <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                    {label}
                  </th>
                  {shown.map((p) => (
                    <td key={p.id} className="py-1 pr-3">
                      {value(p)}
                    </td>
                  ))}
                </tr>
              ))}
              {(shown.length > 1 ? differ : [...pieces]).map(([piece, label]) => (
                <tr key={piece} className="ruled">
                  <th scope="row" className="py-1 pr-3 text-left font-normal [overflow-wrap:anywhere]">
                    {label}
                  </th>
                  {shown.map((p) => {
                    const line = p.lines.find((l) => l.piece === piece);
                    return (
                      <td key={p.id} className="py-1 pr-3">
                        {line
                          ? line.kind === "wait"
                            ? "wait"
                            : `${line.name}, ${dayText(line.at, site)}`
                          : "not in it"}
                      </td>
                    );
                  })}
                </tr>
              ))}
              {mayEdit ? (
                <tr>
                  <td />
                  {shown.map((p) => (
                    <td key={p.id} className="py-2 pr-3">
                      {p.bookedAt ? (
                        <span className="text-ink-2">
                          <>
                            Booked by {p.bookedBy}, {dayText(p.bookedAt, site)}
                          </>
                        </span>
                      ) : (
                        <Form method="post" className="flex flex-wrap gap-2">
                          <input type="hidden" name="plan" value={p.id} />
                          <Button name="intent" value="book">
                            Book this plan
                          </Button>
                          <ConfirmButton
                            intent="drop"
                            label="Put aside"
                            question={`Put “${p.name}” aside?`}
                            explain="It is no longer listed; the record of changes keeps it."
                          />
                        </Form>
                      )}
                    </td>
                  ))}
                </tr>
              ) : null}
            </tbody>
          </table>
        </div>
      ) : null}
    </Section>
  );
}
