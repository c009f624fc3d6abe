import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/edit";
import { findUnit, fromCore, pointQuantityIds, preferredUnit, quantityOf, type PointQuantityId } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { useSite } from "~/ui/site";
import { saveInstrument } from "~/domain/instruments/commands.server";
import { principleIds, principles } from "~/domain/instruments/form";
import { instrumentRow } from "~/domain/instruments/queries.server";
import { edit as texts } from "./texts";

export const meta = () => [{ title: texts.instrumentJuncteral }];

export const loader = guard("engineer", async ({ params }) => ({
  instrument: params.id ? await instrumentRow(idParam(params)) : null,
}));

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const old = params.id ? await instrumentRow(idParam(params)) : null;
  const done = await saveInstrument(old, await formFields(request), user, user.units);
  return done.ok ? redirect(`/instruments/${done.id}`) : refused(done);
});

export default function EditInstrument({ loaderData: { instrument }, actionData }: Route.ComponentProps) {
  const { units } = useSite();
  const [quantity, setQuantity] = useState<PointQuantityId>(instrument?.quantity ?? "pressure");
  const unit = preferredUnit(quantity, units);
  const text = (value: number | null | undefined, of: PointQuantityId | "viscosity" = quantity) =>
    value === null || value === undefined
      ? ""
      : String(Number(fromCore(value, findUnit(preferredUnit(of, units), quantityOf(of).dimension)!).toPrecision(6)));
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead
        crumbs={[
          { label: texts.instruments, to: "/instruments" },
          ...(instrument ? [{ label: instrument.tag, to: `/instruments/${instrument.id}` }] : []),
        ]}
        title={instrument ? texts.edit(instrument.tag) : texts.addAnInstrument}
      />
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={instrument?.version ?? 0} />
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="grid gap-4 sm:grid-cols-2">
            <TextField name="tag" label={texts.tag} defaultValue={instrument?.tag} maxLength={60} />
            <TextField name="name" label={texts.name} defaultValue={instrument?.name} maxLength={120} />
            <SelectField
              name="quantity"
              label={texts.reads}
              value={quantity}
              onChange={(e) => setQuantity(e.target.value as PointQuantityId)}
              options={pointQuantityIds.map((id) => ({ value: id, label: quantityOf(id).label }))}
            />
            <SelectField
              name="principle"
              label={texts.principle}
              defaultValue={instrument?.principle ?? "any"}
              options={principleIds.map((id) => ({ value: id, label: principles[id] }))}
            />
            <TextField
              name="fullScale"
              label={texts.fullScale}
              suffix={unit}
              defaultValue={text(instrument?.fullScale)}
            />
            <TextField
              name="accuracyClass"
              label={texts.classText}
              suffix={texts.ofFullScale}
              defaultValue={instrument?.accuracyClass ?? "1"}
            />
            <TextField
              name="leastReading"
              label={texts.readsFrom}
              hint={texts.leftOutFromZero}
              suffix={unit}
              defaultValue={text(instrument?.leastReading)}
            />
            <span className="max-sm:hidden" />
            <TextField
              name="viscosityLow"
              label={texts.oilFrom}
              hint={texts.aMeterRangeOf}
              suffix={texts.mm}
              defaultValue={text(instrument?.viscosityLow, "viscosity")}
            />
            <TextField
              name="viscosityHigh"
              label={texts.to}
              suffix={texts.mm}
              defaultValue={text(instrument?.viscosityHigh, "viscosity")}
            />
            <div className="sm:col-span-2">
              <TextArea name="note" label={texts.note} defaultValue={instrument?.note} maxLength={500} />
            </div>
          </div>
          <p className="mt-4 flex gap-3">
            <Button>{instrument ? texts.save : texts.addTheInstrument}</Button>
            {instrument && !instrument.retiredAt ? (
              <Button name="intent" value="retire" tone="danger">
                {texts.retireIt}
              </Button>
            ) : null}
          </p>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
