import { Link, redirect } from "react-router";
import type { Route } from "./+types/machine";
import { componentKinds, proceduresFor, quantityOf, type ComponentKind } from "@core";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Notice } from "~/ui/form";
import { MarginRule } from "~/ui/marginRule";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, useShow, useSite } from "~/ui/site";
import { Spark } from "~/ui/spark";
import { StateWord } from "~/ui/state";
import { recordMeterChange, withdrawMeterChange } from "~/domain/assets/hourMeter.server";
import { diagramIfAny } from "~/domain/circuits/index.server";
import { CircuitPicture } from "./circuitPicture";
import { HourMeter } from "./meter";
import { machinePage, machinePlace } from "~/domain/assets/queries.server";
import { machine as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.juncteral(loaderData?.page.machine.name ?? texts.machine) },
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
  if (counts.all === 0) return texts.nothingIsMeasuredYet(name);
  const parts = [
    counts.alarm && texts.alarm(counts.alarm),
    counts.alert && texts.alert(counts.alert),
    counts.drifting && texts.drifting(counts.drifting),
    counts.unproven && texts.unproven(counts.unproven),
    counts.unread && texts.unread(counts.unread),
  ].filter(Boolean);
  return parts.length
    ? texts.ofPoints(name, parts.join(", "), counts.all)
    : counts.all === 1
      ? texts.itsOnePointIs(name)
      : texts.allPointsAreNormal(name, counts.all);
}

export default function Machine(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <MachineScreen {...props} />
    </InZone>
  );
}

function MachineScreen({ loaderData: { page, diagrams, submission, mayEdit }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const { machine } = page;
  const all = page.circuits.flatMap((c) => c.components.flatMap((k) => k.points));
  const count = (state: string) => all.filter((p) => p.state === state).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: texts.fleet, to: "/fleet" }, { label: machine.area || page.site }]}
        title={findingOf(machine.name, {
          alarm: count("alarm"),
          alert: count("alert"),
          drifting: count("drifting"),
          unproven: count("unproven"),
          unread: count("unread"),
          all: all.length,
        })}
      >
        {texts.aboutADay(
          machine.tag,
          show(machine.hoursPerDay, "runningHours"),
          machine.note,
          machine.retired ? texts.retired : "",
        )}{" "}
        <Link to={`/report?machine=${machine.id}`} className="way ml-3">
          {texts.report}
        </Link>
        {mayEdit ? (
          <span className="ml-3 inline-flex gap-4">
            <Link to={`/fleet/edit/machine/${machine.id}`} className="way">
              {texts.edit}
            </Link>
            <Link to={`/fleet/new/circuit?machineId=${machine.id}`} className="way">
              {texts.addACircuit}
            </Link>
          </span>
        ) : null}
      </PageHead>
      {page.altered.length > 0 ? (
        <Notice tone="ochre" live={false}>
          <strong>{texts.alteredForATest}</strong>{" "}
          {page.altered.map((a) => `${a.what}${a.before ? texts.was(a.before) : ""} (${a.by})`).join("; ")}.{" "}
          <Link to="/tests" className="way">
            {texts.putItBack}
          </Link>
        </Notice>
      ) : null}
      {page.circuits.length === 0 ? (
        <Empty>
          {texts.noCircuitYet}{" "}
          {mayEdit ? (
            <Link className="act" to={`/fleet/new/circuit?machineId=${machine.id}`}>
              {texts.addACircuit}
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
            circuit.fluid ?? texts.noFluidStated,
          ].join(", ")}
          aside={
            <span className="inline-flex gap-4">
              <Link to={`/oil/${circuit.id}`} className="way">
                {texts.itsOil(circuit.oil === "alarm" || circuit.oil === "alert" ? `: ${circuit.oil}` : "")}
              </Link>
              {mayEdit ? (
                <>
                  <Link to={`/fleet/edit/circuit/${circuit.id}`} className="way">
                    {texts.edit}
                  </Link>
                  <Link to={`/fleet/new/component?circuitId=${circuit.id}`} className="way">
                    {texts.addAComponent}
                  </Link>
                  {circuit.components.length === 0 ? (
                    <Link to={`/fleet/circuits/${circuit.id}/draw`} className="way">
                      {texts.drawIt}
                    </Link>
                  ) : null}
                </>
              ) : null}
            </span>
          }
        >
          {circuit.components.length === 0 ? <Empty>{texts.noComponentYet}</Empty> : null}
          {diagrams[i] ? (
            <CircuitPicture circuit={circuit} diagram={diagrams[i]} machine={machine.name} mayEdit={mayEdit} />
          ) : circuit.components.length > 0 ? (
            <Empty>{texts.theCircuitDiagramCannot}</Empty>
          ) : null}
          <table className="w-full border-collapse [&_td]:py-1 lg:[&_td]:py-0.5">
            <thead className="sr-only">
              <tr>
                <th scope="col">{texts.point}</th>
                <th scope="col">{texts.state}</th>
                <th scope="col">{texts.course}</th>
                <th scope="col">{texts.lastReading}</th>
                <th scope="col">{texts.marginUsed}</th>
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
                      {k.startedAt ? texts.since(dayText(k.startedAt, site)) : ""}
                      {k.knownWhenNew ? "" : texts.conditionUnknownWhenMeasuring}
                    </span>
                    {mayEdit ? (
                      <span className="float-right inline-flex gap-4 text-sm font-normal">
                        <Link to={`/fleet/edit/component/${k.id}`} className="way" aria-label={texts.editName(k.name)}>
                          {texts.edit}
                        </Link>
                        <Link
                          to={`/fleet/new/point?componentId=${k.id}`}
                          className="way"
                          aria-label={texts.addAPointTo(k.name)}
                        >
                          {texts.addAPoint}
                        </Link>
                      </span>
                    ) : null}
                    {proceduresFor(k.kind).length > 0 ? (
                      <details className="mt-0.5 text-sm font-normal">
                        <summary className="text-sea">{texts.tests}</summary>
                        <span className="flex flex-wrap gap-x-4 gap-y-1 pt-1">
                          {proceduresFor(k.kind).map((t) => (
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
                        texts.noReading
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
              <h3 className="text-sm">{texts.notMonitoredHere}</h3>
              <ul>
                {circuit.missing.map((m) => (
                  <li key={m.componentId + m.quantity} className="py-0.5 text-ink-2">
                    {texts.withoutAPointFor(m.component, quantityOf(m.quantity).short, m.unknown)}
                    {mayEdit ? (
                      <>
                        {" "}
                        <Link
                          to={`/fleet/new/point?componentId=${m.componentId}&quantity=${m.quantity}`}
                          className="way"
                        >
                          {texts.addIt}
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
