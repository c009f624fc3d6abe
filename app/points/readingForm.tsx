/** Log a reading: the expected range for the conditions entered stands beside the field before saving. */
import { useMemo, useRef, useState } from "react";
import { Form } from "react-router";
import {
  expectedReading,
  parseQuantity,
  preferredUnit,
  questionReading,
  quantityOf,
  readingStates,
  type Expectation,
  type Fluid,
  type PointQuantityId,
  type Question,
  type ReadingState,
  type UnitPreference,
} from "@core";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { localMoment } from "~/platform/validate";
import { useLetterKey } from "~/ui/letterKey";
import { withUnit } from "~/ui/typed";
import { localInput, momentText, useShow, useSite } from "~/ui/site";
import { carry, useCarried } from "./carried";

export interface ReadingFormPoint {
  machineId: string;
  quantity: PointQuantityId;
  unit: string;
  state: ReadingState;
  timeZone: string;
  fluid: Fluid | null;
  expectation: Expectation | null;
  /** Does the correction need oil temperature and load? */
  needsConditions: boolean;
  /** Is what it reads the temperature of the oil? Then it is asked once. */
  isOilTemperature: boolean;
  last: { raw: number; at: number; temperature: number | null } | null;
  instruments: { id: string; tag: string; name: string }[];
}

export interface ReadingFormValues {
  value?: string;
  least?: string;
  temperature?: string;
  pressure?: string;
  speed?: string;
  hours?: string;
  takenAt?: string;
  instrumentId?: string;
  note?: string;
}

type Typed = Record<"value" | "temperature" | "pressure" | "hours" | "takenAt", string>;

interface Answer {
  problems?: Record<string, string>;
  question?: Question;
}

function numberIn(text: string, id: "oilTemperature" | "loadPressure", units: UnitPreference): number | null {
  const parsed = parseQuantity(text, id, { assume: preferredUnit(id, units) });
  return parsed.ok ? parsed.parsed.value : null;
}

export function ReadingForm({
  point,
  submission,
  answer,
  values = {},
  takenAt,
  children,
  button,
  ask = true,
}: {
  point: ReadingFormPoint;
  submission: string;
  answer: Answer | undefined;
  values?: ReadingFormValues;
  takenAt: number;
  children?: React.ReactNode;
  button?: React.ReactNode;
  /** Question an odd value before it is saved. */
  ask?: boolean;
}) {
  const site = useSite();
  // what was typed at the last point of this machine a moment ago is the same here
  const before = useCarried(point.machineId);
  const [own, setTyped] = useState<Partial<Typed>>({});
  const typed: Typed = {
    value: own.value ?? values.value ?? "",
    temperature: own.temperature ?? (values.temperature || before?.temperature) ?? "",
    pressure: own.pressure ?? (values.pressure || before?.pressure) ?? "",
    hours: own.hours ?? (values.hours || before?.hours) ?? "",
    takenAt: own.takenAt ?? values.takenAt ?? localInput(takenAt, point.timeZone),
  };
  const form = useRef<HTMLFormElement>(null);
  const quantity = quantityOf(point.quantity);

  // the first field, so that Tab leads through all of them in their order
  useLetterKey("n", () => form.current?.querySelector<HTMLInputElement>("input:not([type=hidden])")?.focus());

  const conditions = useMemo(
    () => ({
      temperature: numberIn(typed.temperature, "oilTemperature", site.units),
      pressure: numberIn(typed.pressure, "loadPressure", site.units),
    }),
    [typed.temperature, typed.pressure, site.units],
  );
  // a reading that is entered late is held against the level of its own time
  const moment = localMoment(typed.takenAt, point.timeZone);
  const at = Number.isNaN(moment) ? takenAt : moment;
  const expected = useMemo(
    () => (point.expectation ? expectedReading(point.expectation, point.fluid, { ...conditions, at }) : null),
    [point, conditions, at],
  );
  const question = useMemo(() => {
    if (!ask) return undefined;
    const parsed = parseQuantity(typed.value, point.quantity, { assume: point.unit });
    return parsed.ok
      ? questionReading(
          { value: parsed.parsed.value, entered: parsed.parsed.entered, unit: parsed.parsed.unit },
          point.quantity,
          expected,
          point.last?.raw ?? null,
          point.unit,
        )
      : undefined;
  }, [ask, typed.value, expected, point]);
  const asked = question ?? answer?.question;
  const written = useShow();
  const show = (core: number) => written(core, point.quantity, { unit: point.unit });
  const follow = (name: keyof typeof typed) => ({
    value: typed[name],
    onChange: (e: React.ChangeEvent<HTMLInputElement>) => setTyped((t) => ({ ...t, [name]: e.target.value })),
  });
  const problem = answer?.problems ?? {};
  const hidden = ["speed", "takenAt", "instrumentId", "note", "state"].some((name) => problem[name]);

  const conditionsText = point.needsConditions
    ? `At ${conditions.temperature === null ? "usual temperature" : written(conditions.temperature, "oilTemperature")} ` +
      `and ${conditions.pressure === null ? "usual load" : written(conditions.pressure, "loadPressure")} expect `
    : "Expect ";

  return (
    <Form
      method="post"
      noValidate
      ref={form}
      onSubmit={() =>
        carry(point.machineId, { temperature: typed.temperature, pressure: typed.pressure, hours: typed.hours })
      }
    >
      <input type="hidden" name="submission" value={submission} />
      <FormProblemsProvider problems={answer?.problems}>
        <div className={`grid gap-3 ${point.isOilTemperature ? "grid-cols-2" : "grid-cols-3"}`}>
          {point.isOilTemperature ? (
            <input type="hidden" name="temperature" value={withUnit(typed.value, point.unit)} />
          ) : (
            <TextField
              name="temperature"
              label="Oil"
              suffix={typed.temperature.match(/[a-z°]/i) ? "" : preferredUnit("oilTemperature", site.units)}
              inputMode="decimal"
              {...follow("temperature")}
            />
          )}
          <TextField
            name="pressure"
            label="Load"
            suffix={typed.pressure.match(/[a-z]/i) ? "" : preferredUnit("loadPressure", site.units)}
            inputMode="decimal"
            {...follow("pressure")}
          />
          <TextField name="hours" label="Hours" suffix="h" inputMode="decimal" {...follow("hours")} />
        </div>
        <div className={`mt-3 grid gap-3 ${point.state === "cycle" ? "grid-cols-2" : ""}`}>
          {point.state === "cycle" ? (
            <TextField
              name="least"
              label="Least over the cycle"
              suffix={point.unit}
              inputMode="decimal"
              defaultValue={values.least}
              className="py-3 text-lg"
            />
          ) : null}
          <TextField
            name="value"
            label={point.state === "cycle" ? "Greatest over the cycle" : quantity.label}
            suffix={typed.value.match(/[a-z°µ"%]/i) ? "" : point.unit}
            inputMode="text"
            className="py-3 text-xl"
            {...follow("value")}
            aria-describedby="expected"
          />
        </div>
        <p id="expected" aria-live="polite" className="mt-1.5 min-h-11 text-ink-2">
          {expected ? (
            <>
              {conditionsText}
              <strong className="font-semibold text-ink">
                {`${show(Math.max(quantity.least, expected.low))} to ${show(expected.high)}`}
              </strong>
              {expected.beyondSeen ? " (outside what it was read at before, so less sure)" : ""}.{" "}
            </>
          ) : (
            "No expected range: it needs three readings of a healthy part. "
          )}
          {point.last ? (
            <>
              {`Last time ${show(point.last.raw)}${
                point.last.temperature === null || point.isOilTemperature
                  ? ""
                  : ` at ${written(point.last.temperature, "oilTemperature")}`
              }, ${momentText(point.last.at, { ...site, timeZone: point.timeZone })}.`}
            </>
          ) : null}
        </p>
        {asked ? (
          <div className="mb-3">
            <Notice tone="verm">{asked.message}</Notice>
            <TextField
              name="keptBecause"
              label="Keep it, because"
              hint="Or put the value right above."
              maxLength={300}
              defaultValue={values.note}
            />
          </div>
        ) : null}
        <details className="mb-3" open={hidden || undefined}>
          <summary className="py-1.5 text-sea">Time, state, speed, instrument, note</summary>
          <div className="mt-2 grid gap-3">
            <TextField name="takenAt" label="Read at" type="datetime-local" {...follow("takenAt")} />
            <TextField name="speed" label="Speed" suffix="r/min" inputMode="decimal" defaultValue={values.speed} />
            <input type="hidden" name="state" value={point.state} />
            <p className={`text-xs ${problem.state ? "text-verm" : "text-ink-2"}`}>
              {problem.state ??
                `Always read ${readingStates[point.state]}: a series never mixes states. Another state needs a point of its own.`}
            </p>
            <SelectField
              name="instrumentId"
              label="Instrument"
              defaultValue={values.instrumentId ?? ""}
              options={[
                { value: "", label: "not stated" },
                ...point.instruments.map((i) => ({ value: i.id, label: `${i.tag}, ${i.name}` })),
              ]}
            />
            <TextArea name="note" label="Note" rows={2} defaultValue={values.note} maxLength={1000} />
          </div>
        </details>
        {children}
        {button ?? <Button className="w-full">Save and go to the next point</Button>}
      </FormProblemsProvider>
    </Form>
  );
}
