import { useState } from "react";
import { Form, redirect } from "react-router";
import type { Route } from "./+types/edit";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { fieldsOf } from "~/platform/validate";
import { formOf } from "~/platform/request.server";
import { Button, CheckField, FormProblemsProvider, SelectField, TextField, fieldClass } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { saveRound, choosablePoints, roundRow } from "~/domain/rounds/index.server";
import { WayList } from "./wayList";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Round · Juncteral" }];

export const loader = guard("engineer", async ({ params }) => {
  const id = params.id ? idParam(params) : null;
  const [round, choices] = await Promise.all([id ? roundRow(id) : null, choosablePoints(id)]);
  return {
    round: round
      ? {
          name: round.name,
          walkedBy: round.walkedBy,
          intervalDays: round.intervalDays,
          intervalHours: round.intervalHours,
          closer: round.closer,
          version: round.version,
          retired: round.retiredAt !== null,
        }
      : null,
    choices,
  };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const form = await formOf(request);
  const saved = await saveRound(
    params.id ? idParam(params) : null,
    fieldsOf(form),
    String(form.get("order") ?? "")
      .split(",")
      .filter(Boolean),
    user,
  );
  return saved.ok ? redirect(`/rounds/${saved.id}`) : refused(saved);
});

export default function EditRound({ loaderData: { round, choices }, actionData }: Route.ComponentProps) {
  const [order, setOrder] = useState(() =>
    choices
      .filter((c) => c.chosen !== null)
      .sort((a, b) => a.chosen! - b.chosen!)
      .map((c) => c.id),
  );
  const [filter, setFilter] = useState("");
  const [every, setEvery] = useState(
    round?.intervalHours
      ? "hours"
      : round?.intervalDays === 7
        ? "week"
        : round && round.intervalDays !== 30
          ? "days"
          : "month",
  );
  const byId = new Map(choices.map((c) => [c.id, c]));
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const found =
    words.length === 0
      ? []
      : choices.filter(
          (c) =>
            !order.includes(c.id) && words.every((w) => `${c.machine} ${c.label} ${c.area}`.toLowerCase().includes(w)),
        );
  const problem = actionData?.problems.points;
  return (
    <>
      <PageHead crumbs={[{ label: "Rounds", to: "/rounds" }]} title={round ? `Edit ${round.name}` : "Add a round"} />
      <Form method="post" noValidate>
        <input type="hidden" name="version" value={round?.version ?? 0} />
        <input type="hidden" name="order" value={order.join(",")} />
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="grid max-w-3xl gap-4 sm:grid-cols-2">
            <TextField name="name" label="Name" defaultValue={round?.name} maxLength={120} />
            <TextField name="walkedBy" label="Walked by" defaultValue={round?.walkedBy} maxLength={120} />
            <SelectField
              name="every"
              label="How often"
              value={every}
              onChange={(e) => setEvery(e.target.value)}
              options={[
                { value: "week", label: "weekly" },
                { value: "month", label: "monthly" },
                { value: "days", label: "by calendar days" },
                { value: "hours", label: "by running hours" },
              ]}
            />
            {every === "days" ? (
              <TextField name="days" label="Days" defaultValue={round?.intervalDays} inputMode="numeric" />
            ) : every === "hours" ? (
              <TextField
                name="hours"
                label="Running hours"
                suffix="h"
                defaultValue={round?.intervalHours ?? ""}
                inputMode="numeric"
              />
            ) : (
              <span />
            )}
            <div className="sm:col-span-2">
              <CheckField
                name="closer"
                label="Read more often as a point approaches its limit"
                defaultChecked={round?.closer ?? true}
              />
            </div>
          </div>
          <div className="mt-5 grid gap-x-8 gap-y-4 lg:grid-cols-2">
            <section>
              <h2 className="ruled pb-1">{`On the way, ${counted(order.length, "point")}`}</h2>
              {problem ? (
                <p role="alert" className="py-1 font-medium text-verm">
                  {problem}
                </p>
              ) : null}
              <WayList
                points={order.map((id) => byId.get(id) ?? { id, machine: "gone", label: "" })}
                onOrder={setOrder}
              />
            </section>
            <section>
              <h2 className="ruled pb-1">Add points</h2>
              <input
                type="search"
                aria-label="Points by machine and name"
                placeholder="Machine or point"
                value={filter}
                onChange={(e) => setFilter(e.target.value)}
                className={`${fieldClass} mt-2`}
              />
              <ul className="mt-1 lg:max-h-[22rem] lg:overflow-y-auto" tabIndex={-1}>
                {found.slice(0, 60).map((c) => (
                  <li key={c.id} className="ruled">
                    <button
                      type="button"
                      className="min-h-9 w-full py-1 text-left [overflow-wrap:anywhere] hover:bg-sheet max-lg:min-h-11"
                      onClick={() => setOrder((o) => [...o, c.id])}
                    >
                      <span className="text-ink-2">{c.machine}, </span>
                      {c.label}
                    </button>
                  </li>
                ))}
              </ul>
              {found.length > 1 ? (
                <p className="mt-2">
                  <Button type="button" tone="plain" onClick={() => setOrder((o) => [...o, ...found.map((c) => c.id)])}>
                    {`Add all ${found.length}`}
                  </Button>
                </p>
              ) : null}
            </section>
          </div>
          <p className="mt-5 flex gap-3">
            <Button>{round ? "Save the round" : "Add the round"}</Button>
            {round && !round.retired ? (
              <Button name="intent" value="retire" tone="danger">
                Retire it
              </Button>
            ) : null}
          </p>
        </FormProblemsProvider>
      </Form>
    </>
  );
}
