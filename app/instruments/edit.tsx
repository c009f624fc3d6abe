import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/edit";
import { findUnit, fromCore, pointQuantityIds, preferredUnit, quantityOf, type PointQuantityId } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { useSite } from "~/ui/site";
import { saveInstrument, instrumentRow } from "~/domain/instruments/index.server";
import { principleIds, principles } from "~/domain/instruments/index";

export const meta = () => [{ title: "Instrument · Juncteral" }];

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
          { label: "Instruments", to: "/instruments" },
          ...(instrument ? [{ label: instrument.tag, to: `/instruments/${instrument.id}` }] : []),
        ]}
        title={instrument ? `Edit ${instrument.tag}` : "Add an instrument"}
      />
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={instrument?.version ?? 0} />
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="grid gap-4 sm:grid-cols-2">
            <TextField name="tag" label="Tag" defaultValue={instrument?.tag} maxLength={60} />
            <TextField name="name" label="Name" defaultValue={instrument?.name} maxLength={120} />
            <SelectField
              name="quantity"
              label="Reads"
              value={quantity}
              onChange={(e) => setQuantity(e.target.value as PointQuantityId)}
              options={pointQuantityIds.map((id) => ({ value: id, label: quantityOf(id).label }))}
            />
            <SelectField
              name="principle"
              label="Principle"
              defaultValue={instrument?.principle ?? "any"}
              options={principleIds.map((id) => ({ value: id, label: principles[id] }))}
            />
            <TextField name="fullScale" label="Full scale" suffix={unit} defaultValue={text(instrument?.fullScale)} />
            <TextField
              name="accuracyClass"
              label="Class"
              suffix="% of full scale"
              defaultValue={instrument?.accuracyClass ?? "1"}
            />
            <TextField
              name="leastReading"
              label="Reads from"
              hint="Left out: from zero."
              suffix={unit}
              defaultValue={text(instrument?.leastReading)}
            />
            <span className="max-sm:hidden" />
            <TextField
              name="viscosityLow"
              label="Oil from"
              hint="A meter's range of viscosity; left out: any."
              suffix="mm²/s"
              defaultValue={text(instrument?.viscosityLow, "viscosity")}
            />
            <TextField
              name="viscosityHigh"
              label="to"
              suffix="mm²/s"
              defaultValue={text(instrument?.viscosityHigh, "viscosity")}
            />
            <div className="sm:col-span-2">
              <TextArea name="note" label="Note" defaultValue={instrument?.note} maxLength={500} />
            </div>
          </div>
          <p className="mt-4 flex gap-3">
            <Button>{instrument ? "Save" : "Add the instrument"}</Button>
            {instrument && !instrument.retiredAt ? (
              <Button name="intent" value="retire" tone="danger">
                Retire it
              </Button>
            ) : null}
          </p>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
