import { readsTheOil, findUnit, fromCore, preferredUnit, quantityOf } from "@core";
import { redirect } from "react-router";
import type { Route } from "./+types/correct";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { pointPlace, correctReading, pointPage, readingOf } from "~/domain/readings/index.server";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, Notice, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { dayText, InZone, localInput, useSite } from "~/ui/site";
import { ReadingForm } from "./readingForm";

export const meta = () => [{ title: "Correct a reading · Juncteral" }];

export const loader = guard("technician", async ({ params, user }) => {
  const id = idParam(params);
  const [reading, page] = await Promise.all([
    readingOf(id, idParam(params, "readingId")),
    pointPage(id, 0, user.units),
  ]);
  return {
    place: page.place,
    quantity: page.quantity,
    unit: page.unit,
    readState: page.readState,
    fluid: page.fluid,
    instruments: page.instruments,
    expectation: page.detail?.expectation ?? null,
    submission: crypto.randomUUID(),
    reading: {
      id: reading.id,
      takenAt: reading.takenAt.getTime(),
      entered: reading.entered,
      value: reading.value,
      least: reading.least,
      temperature: reading.temperature,
      pressure: reading.pressure,
      speed: reading.speed,
      hours: reading.hours,
      instrumentId: reading.instrumentId,
      note: reading.note,
      doubtful: reading.doubtful,
      by: reading.takenBy,
      superseded: reading.supersededAt !== null,
      why: reading.supersededWhy,
      supersededBy: reading.supersededBy,
    },
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const place = await pointPlace(idParam(params), user.units);
  const reading = await readingOf(place.id, idParam(params, "readingId"));
  const saved = await correctReading(place, reading, await formFields(request), user);
  if (!saved.ok) return refused(saved);
  return redirect(`/points/${place.id}?view=table`);
});

export default function Correct(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.place.timeZone}>
      <CorrectScreen {...props} />
    </InZone>
  );
}

function CorrectScreen({ loaderData, actionData }: Route.ComponentProps) {
  const { place, reading, quantity, unit } = loaderData;
  const site = useSite();
  const u = findUnit(unit, quantityOf(quantity).dimension)!;
  const text = (value: number | null) => (value === null ? "" : String(Number(value.toPrecision(6))));
  /** A condition in the unit in which the form takes it. */
  const condition = (value: number | null, id: "oilTemperature" | "loadPressure") =>
    value === null ? "" : text(fromCore(value, findUnit(preferredUnit(id, site.units), quantityOf(id).dimension)!));
  const inUnit = (value: number | null) => (value === null ? "" : String(Number(fromCore(value, u).toPrecision(6))));
  return (
    <>
      <PageHead
        crumbs={[
          { label: place.machine, to: `/fleet/machines/${place.machineId}` },
          { label: place.component },
          { label: place.name, to: `/points/${place.id}` },
        ]}
        title={`Correct the reading of ${dayText(reading.takenAt, site)}`}
      >
        {`It read ${reading.entered}, read by ${reading.by}. The old one stays in the record, with who ` +
          "changed it, when and why."}
      </PageHead>
      <div className="max-w-md">
        {reading.superseded ? (
          <Notice tone="ochre">
            {reading.supersededBy} has already corrected this reading: {reading.why}
          </Notice>
        ) : (
          <ReadingForm
            ask={false}
            point={{
              machineId: "",
              quantity,
              unit,
              state: loaderData.readState,
              timeZone: place.timeZone,
              fluid: loaderData.fluid,
              expectation: loaderData.expectation,
              needsConditions: quantityOf(quantity).correction === "leakage",
              isOilTemperature: readsTheOil(quantity, place.name),
              last: null,
              instruments: loaderData.instruments,
            }}
            submission={loaderData.submission}
            answer={actionData}
            takenAt={reading.takenAt}
            values={{
              value: reading.entered,
              least: inUnit(reading.least),
              temperature: condition(reading.temperature, "oilTemperature"),
              pressure: condition(reading.pressure, "loadPressure"),
              speed: text(reading.speed),
              hours: text(reading.hours),
              takenAt: localInput(reading.takenAt, place.timeZone),
              instrumentId: reading.instrumentId ?? "",
              note: reading.note,
            }}
            button={
              <div className="flex flex-wrap gap-3">
                <Button name="intent" value="replace">
                  Save the corrected reading
                </Button>
                <Button name="intent" value="withdraw" tone="danger">
                  Withdraw it
                </Button>
              </div>
            }
          >
            <div className="mb-3 grid gap-2">
              <CheckField
                name="doubtful"
                label="Doubtful: keep it, but count it less"
                defaultChecked={reading.doubtful}
              />
              <TextField
                name="why"
                label="Why"
                maxLength={300}
                hint="For example: read in gal/min, one digit off, meter not at zero"
              />
            </div>
          </ReadingForm>
        )}
      </div>
    </>
  );
}
