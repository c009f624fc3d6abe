/** A reading logged at its point. */
import { useMemo } from "react";
import type { Route } from "./+types/point";
import { quantityOf, readingStates, cautionFor, readsTheOil } from "@core";
import { Section } from "~/ui/page";
import type { PointPage } from "~/domain/readings/index.server";
import { ReadingForm } from "./readingForm";

/** The form of a reading, with what this point knows already. */
export function LogHere({
  data,
  submission,
  answer,
}: {
  data: PointPage;
  submission: string;
  answer: Route.ComponentProps["actionData"];
}) {
  const { place, detail } = data;
  const quantity = quantityOf(data.quantity);
  const readingPoint = useMemo(
    () => ({
      machineId: place.machineId,
      quantity: data.quantity,
      unit: data.unit,
      state: data.readState,
      timeZone: place.timeZone,
      fluid: data.fluid,
      expectation: detail?.expectation ?? null,
      needsConditions: quantity.correction === "leakage",
      isOilTemperature: readsTheOil(data.quantity, place.name),
      last: data.last
        ? {
            raw: data.last.raw,
            at: data.last.at,
            temperature: data.table.find((r) => r.id === data.last!.id)?.temperature ?? null,
          }
        : null,
      instruments: data.instruments,
    }),
    [data, detail, place.machineId, place.timeZone, place.name, quantity.correction],
  );

  return (
    <Section title="Log a reading" aside={<kbd className="rounded-[2px] border border-line-2 px-1.5 text-xs">n</kbd>}>
      <p className="py-2 text-sm text-ink-2">{`Read ${readingStates[data.readState]}. ${data.conditions}`}</p>
      <ReadingForm
        key={submission}
        point={readingPoint}
        submission={submission}
        answer={answer}
        takenAt={data.now}
        values={{ instrumentId: data.instrumentId ?? "" }}
      />
      <p className="mt-2 border-l-2 border-ochre pl-2 text-xs text-ink-2">{cautionFor(data.quantity)}</p>
    </Section>
  );
}
