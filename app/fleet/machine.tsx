import { Link, redirect } from "react-router";
import type { Route } from "./+types/machine";
import { componentKinds, checksFor, quantityOf, type ComponentKind } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Notice } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, useShow, useSite } from "~/ui/site";
import { Spark } from "~/ui/spark";
import { StateWord } from "~/ui/state";
import { recordMeterChange, withdrawMeterChange, machinePage, machinePlace } from "~/domain/assets/index.server";
import { diagramIfAny } from "~/domain/circuits/index.server";
import { CircuitPicture } from "./circuitPicture";
import { HourMeter } from "./meter";
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.page.machine.name ?? "Machine"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const page = await machinePage(idParam(params));
  return {
    page,
    diagrams: await Promise.all(
      page.circuits.map((c) => (c.components.length > 0 ? diagramIfAny(c.id) : Promise.resolve(undefined))),
    ),
    submission: crypto.randomUUID(),
    mayEdit: mayAct(user.role, "engineer"),
    mayComplain: mayAct(user.role, "technician"),
  };
});

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const { machine, timeZone } = await machinePlace(idParam(params));
  const fields = await formFields(request);
  const done =
    fields.intent === "withdrawMeter"
      ? await withdrawMeterChange(machine, fields, user)
      : await recordMeterChange(machine, fields, user, timeZone);
  return done.ok ? redirect(`/fleet/machines/${machine}`) : refused(done);
});

function findingOf(
  name: string,
  counts: { alarm: number; alert: number; drifting: number; unproven: number; unread: number; all: number },
): string {
  if (counts.all === 0) return `${name}: nothing is measured yet`;
  const parts = [
    counts.alarm && `${counts.alarm} alarm`,
    counts.alert && `${counts.alert} alert`,
    counts.drifting && `${counts.drifting} drifting`,
    counts.unproven && `${counts.unproven} unproven`,
    counts.unread && `${counts.unread} not read yet`,
  ].filter(Boolean);
  return parts.length
    ? `${name}: ${parts.join(", ")} of ${counted(counts.all, "point")}`
    : counts.all === 1
      ? `${name}: its one point is normal`
      : `${name}: all ${counts.all} points are normal`;
}

export default function Machine(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <MachineScreen {...props} />
    </InZone>
  );
}

function MachineScreen({
  loaderData: { page, diagrams, submission, mayEdit, mayComplain },
  actionData,
}: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const { machine } = page;
  const all = page.circuits.flatMap((c) => c.components.flatMap((k) => k.points));
  const count = (state: string) => all.filter((p) => p.state === state).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Fleet", to: "/fleet" }, { label: machine.area || page.site }]}
        title={findingOf(machine.name, {
          alarm: count("alarm"),
          alert: count("alert"),
          drifting: count("drifting"),
          unproven: count("unproven"),
          unread: count("unread"),
          all: all.length,
        })}
      >
        {`${machine.tag}, about ${show(machine.hoursPerDay, "runningHours")} a day. ${machine.note}${machine.retired ? " Retired." : ""}`}{" "}
        <Link to={`/report?machine=${machine.id}`} className="way ml-3">
          Report
        </Link>
        {mayComplain && page.circuits.length > 0 && !machine.retired ? (
          <Link to={`/jobs/new?machine=${encodeURIComponent(machine.tag)}`} className="way ml-3">
            A complaint here
          </Link>
        ) : null}
        {mayEdit ? (
          <span className="ml-3 inline-flex gap-4">
            <Link to={`/fleet/edit/machine/${machine.id}`} className="way">
              Edit
            </Link>
            <Link to={`/fleet/new/circuit?machineId=${machine.id}`} className="way">
              Add a circuit
            </Link>
          </span>
        ) : null}
      </PageHead>
      {page.altered.length > 0 ? (
        <Notice tone="ochre" live={false}>
          <strong>Altered for a test and not put back:</strong>{" "}
          {page.altered.map((a) => `${a.what}${a.before ? `, was ${a.before}` : ""} (${a.by})`).join("; ")}.{" "}
          <Link to="/tests" className="way">
            Put it back
          </Link>
        </Notice>
      ) : null}
      {page.circuits.length === 0 ? (
        <Empty>
          No circuit yet.{" "}
          {mayEdit ? (
            <Link className="act" to={`/fleet/new/circuit?machineId=${machine.id}`}>
              Add a circuit
            </Link>
          ) : null}
        </Empty>
      ) : null}
      {page.circuits.map((circuit, i) => (
        <Section
          key={circuit.id}
          title={[
            circuit.name,
            ...(circuit.workingPressure ? [show(circuit.workingPressure, "loadPressure")] : []),
            circuit.fluid ?? "no fluid stated",
          ].join(", ")}
          aside={
            <span className="inline-flex gap-4">
              <Link to={`/oil/${circuit.id}`} className="way">
                {`Its oil${circuit.oil === "alarm" || circuit.oil === "alert" ? `: ${circuit.oil}` : ""}`}
              </Link>
              {mayEdit ? (
                <>
                  <Link to={`/fleet/edit/circuit/${circuit.id}`} className="way">
                    Edit
                  </Link>
                  <Link to={`/fleet/new/component?circuitId=${circuit.id}`} className="way">
                    Add a component
                  </Link>
                  {circuit.components.length === 0 ? (
                    <Link to={`/fleet/circuits/${circuit.id}/draw`} className="way">
                      Draw it: its parts become components
                    </Link>
                  ) : null}
                </>
              ) : null}
            </span>
          }
        >
          {circuit.components.length === 0 ? <Empty>No component yet.</Empty> : null}
          {diagrams[i] ? (
            <CircuitPicture circuit={circuit} diagram={diagrams[i]} machine={machine.name} mayEdit={mayEdit} />
          ) : circuit.components.length > 0 ? (
            <Empty>The circuit diagram cannot be made; the log of the server says why. The points are below.</Empty>
          ) : null}
          <table className="w-full border-collapse [&_td]:py-1 lg:[&_td]:py-0.5">
            <thead className="sr-only">
              <tr>
                <th scope="col">Point</th>
                <th scope="col">State</th>
                <th scope="col">Course</th>
                <th scope="col">Last reading</th>
                <th scope="col">Margin used</th>
              </tr>
            </thead>
            {circuit.components.map((k) => (
              <tbody key={k.id} id={`c-${k.id}`}>
                <tr className="ruled">
                  <th scope="rowgroup" colSpan={5} className="pt-4 pb-1 text-ink">
                    <span className="font-semibold">{k.name}</span>{" "}
                    <span className="text-sm font-normal text-ink-2">
                      {componentKinds[k.kind as ComponentKind]?.label ?? k.kind}
                      {k.model ? `, ${k.model}` : ""}
                      {k.serial ? `, ${k.serial}` : ""}
                      {k.startedAt ? `, since ${dayText(k.startedAt, site)}` : ""}
                      {k.knownWhenNew ? "" : ", condition unknown when measuring began"}
                    </span>
                    {mayEdit ? (
                      <span className="float-right inline-flex gap-4 text-sm font-normal">
                        <Link to={`/fleet/edit/component/${k.id}`} className="way" aria-label={`Edit ${k.name}`}>
                          Edit
                        </Link>
                        <Link
                          to={`/fleet/new/point?componentId=${k.id}`}
                          className="way"
                          aria-label={`Add a point to ${k.name}`}
                        >
                          Add a point
                        </Link>
                      </span>
                    ) : null}
                    {checksFor(k.kind).length > 0 ? (
                      <details className="mt-0.5 text-sm font-normal">
                        <summary className="text-sea">Tests</summary>
                        <span className="flex flex-wrap gap-x-4 gap-y-1 pt-1">
                          {checksFor(k.kind).map((t) => (
                            <Link key={t.id} to={`/tests/${t.id}?component=${k.id}`} className="way">
                              {t.title}
                            </Link>
                          ))}
                        </span>
                      </details>
                    ) : null}
                  </th>
                </tr>
                {k.points.map((p) => (
                  <tr key={p.id} className="ruled">
                    <td className="pr-3 [overflow-wrap:anywhere]">
                      <Link
                        to={`/points/${p.id}`}
                        className="inline-flex min-h-9 items-center lg:min-h-7 hover:underline"
                      >
                        {p.name}
                      </Link>
                    </td>
                    <td className="pr-3 text-sm">
                      <StateWord state={p.state} />
                    </td>
                    <td className="pr-3 max-md:hidden">{p.trend ? <Spark {...p.trend} state={p.state} /> : null}</td>
                    <td className="pr-3 text-right text-sm whitespace-nowrap">
                      {p.lastRaw === null ? (
                        "no reading"
                      ) : (
                        <>
                          {show(p.lastRaw, p.quantity, { unit: p.unit })}{" "}
                          <span className="text-ink-2 max-sm:hidden">{p.lastAt ? dayText(p.lastAt, site) : ""}</span>
                        </>
                      )}
                    </td>
                    <td className="w-[120px] max-sm:hidden text-right align-middle">
                      <MarginRule margin={p.margin} state={p.state} width={112} label={false} />
                    </td>
                  </tr>
                ))}
              </tbody>
            ))}
          </table>
          {circuit.missing.length > 0 ? (
            <div className="mt-4 border-l-2 border-ochre pl-3 text-sm">
              <h3 className="text-sm">Not monitored here</h3>
              <ul>
                {circuit.missing.map((m) => (
                  <li key={m.componentId + m.quantity} className="py-0.5 text-ink-2">
                    {`${m.component}: without a point for its ${quantityOf(m.quantity).short}, ${m.unknown}.`}
                    {mayEdit ? (
                      <>
                        {" "}
                        <Link
                          to={`/fleet/new/point?componentId=${m.componentId}&quantity=${m.quantity}`}
                          className="way"
                        >
                          Add it
                        </Link>
                      </>
                    ) : null}
                  </li>
                ))}
              </ul>
            </div>
          ) : null}
        </Section>
      ))}
      <HourMeter
        changes={page.meterChanges}
        mayEdit={mayEdit}
        submission={submission}
        now={page.now}
        timeZone={page.timeZone}
        problems={actionData?.problems}
      />
    </>
  );
}
