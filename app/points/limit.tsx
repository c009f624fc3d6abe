import { Form, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/limit";
import { findUnit, formatNumber, fromCore, limitBases, limitBasisIds, quantityOf, type LimitBasis } from "@core";
import { guard, guardAction, idParam } from "~/platform/guard.server";
import { pointPlace, setLimit } from "~/domain/readings/index.server";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";

export const meta = () => [{ title: "Change a limit · Juncteral" }];

export const loader = guard("engineer", async ({ params, user }) => {
  const { point, ...place } = await pointPlace(idParam(params), user.units);
  return {
    place,
    quantity: point.quantity,
    unit: point.unit,
    basis: point.limitBasis,
    upper: point.limitUpper,
    lower: point.limitLower,
    reason: point.limitReason,
    version: point.version,
  };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const place = await pointPlace(idParam(params), user.units);
  const saved = await setLimit(place, await formFields(request), user);
  if (!saved.ok)
    return answerWith(
      {
        problems: saved.problems,
        ...(saved.theirs && { theirs: saved.theirs }),
        ...(saved.question && { question: saved.question }),
      },
      { status: saved.theirs ? 409 : 422 },
    );
  return redirect(`/points/${place.id}`);
});

export default function Limit({ loaderData, actionData }: Route.ComponentProps) {
  const { place, quantity, unit, basis, upper, lower, reason, version } = loaderData;
  const site = useSite();
  const q = quantityOf(quantity);
  const shownUnit = findUnit(unit, q.dimension)!;
  const inUnit = (value: number | null, of: string | null) =>
    value === null
      ? ""
      : of === "absolute" || of === "maker"
        ? `${Number(fromCore(value, shownUnit).toPrecision(6))} ${unit}`
        : String(value);
  const theirs = actionData && "theirs" in actionData ? actionData.theirs : undefined;
  const question = actionData && "question" in actionData ? actionData.question : undefined;
  const bases = limitBasisIds.filter((b) => b !== "shareOfFullFlow" || q.dimension === "flow");
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead
        crumbs={[
          { label: place.machine, to: `/fleet/machines/${place.machineId}` },
          { label: place.component },
          { label: place.name, to: `/points/${place.id}` },
        ]}
        title="Where is the limit, and on what does it rest?"
      >
        The manufacturer's figure for the part comes before any rule of practice.
      </PageHead>
      <Form method="post" noValidate className="grid gap-4">
        <input type="hidden" name="version" value={theirs?.version ?? version} />
        <FormProblemsProvider problems={actionData?.problems}>
          {theirs ? (
            <Notice tone="ochre">
              {`${theirs.by || "Somebody"} set ${theirs.basis ? limitBases[theirs.basis as LimitBasis] : "no basis"}` +
                `: ${[
                  theirs.upper === null ? "" : `upper ${inUnit(theirs.upper, theirs.basis)}`,
                  theirs.lower === null ? "" : `lower ${inUnit(theirs.lower, theirs.basis)}`,
                ]
                  .filter(Boolean)
                  .join(", ")}` +
                `${theirs.at ? `, ${momentText(theirs.at, site)}` : ""}.`}
            </Notice>
          ) : null}
          <div className="grid gap-4">
            <SelectField
              name="basis"
              label="Basis"
              defaultValue={basis ?? "absolute"}
              options={bases.map((b) => ({ value: b, label: limitBases[b] }))}
            />
            <div className="grid grid-cols-2 gap-4">
              <TextField
                name="upper"
                label="Upper limit"
                defaultValue={inUnit(upper, basis)}
                hint={`Percent, a factor, or a value in ${unit}, as the basis says`}
              />
              <TextField
                name="lower"
                label="Lower limit"
                defaultValue={inUnit(lower, basis)}
                hint={q.harm === "rising" ? "This quantity does harm as it rises" : "Leave empty for none"}
              />
            </div>
            <TextField
              name="reason"
              label="Reason or source"
              defaultValue={reason}
              maxLength={300}
              hint="For example the manufacturer's sheet, or common practice"
            />
            {question ? (
              <div>
                <Notice tone="verm">{question}</Notice>
                <CheckField name="beyond" label="Yes: the part already stands beyond this limit" />
              </div>
            ) : null}
            <div>
              <Button>Save the limit</Button>
            </div>
          </div>
        </FormProblemsProvider>
      </Form>
      <p className="mt-4 text-sm text-ink-2">
        {`Full flow is displacement times speed of the component. ${formatNumber(10, 0)} % of it is ` +
          "common practice for a pump's case drain where the manufacturer says nothing."}
      </p>
    </div>
  );
}
