import { Link } from "react-router";
import type { Route } from "./+types/round";
import { guard, idParam } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { DueRows } from "~/ui/dueRows";
import { Due } from "~/ui/due";
import { dayText, daysUntil, useShow, useSite } from "~/ui/site";
import { StateWord } from "~/ui/state";
import { dueWork } from "~/domain/bookings/index.server";
import { roundRow, walkPoints } from "~/domain/rounds/index.server";
import { counted } from "~/ui/counted";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.round.name ?? "Round"} · Juncteral` },
];

const DUE_SHOWN = 20;

export const loader = guard("viewer", async ({ params, user }) => {
  const [round, points] = await Promise.all([roundRow(idParam(params)), walkPoints(idParam(params), user.units)]);
  const machineIds = [...new Set(points.map((p) => p.machineId))];
  return {
    alsoDue: machineIds.length > 0 ? await dueWork({ most: DUE_SHOWN, machineIds }) : [],
    round: { id: round.id, name: round.name, walkedBy: round.walkedBy, retired: round.retiredAt !== null },
    points,
    mayWalk: mayAct(user.role, "technician"),
    mayEdit: mayAct(user.role, "engineer"),
  };
});

export default function Round({ loaderData: { round, points, alsoDue, mayWalk, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const late = points.filter((p) => daysUntil(p.dueAt, site) < 0).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Rounds", to: "/rounds" }]}
        title={
          points.length === 0
            ? `${round.name} has no points`
            : late > 0
              ? `${round.name}: ${late} of ${points.length} points ${late === 1 ? "is" : "are"} late`
              : `${round.name}: nothing is late`
        }
      >
        {round.walkedBy ? `Walked by ${round.walkedBy}. ` : ""}
        {round.retired ? "Retired. " : ""}
        <span className="inline-flex flex-wrap gap-x-4">
          {mayWalk && points.length > 0 && !round.retired ? (
            <Link to={`/rounds/${round.id}/walk`} reloadDocument className="act">
              Walk it
            </Link>
          ) : null}
          <Link to={`/rounds/${round.id}/sheet`} className="way">
            Print a sheet
          </Link>
          {mayEdit ? (
            <Link to={`/rounds/${round.id}/edit`} className="way">
              Edit
            </Link>
          ) : null}
        </span>
      </PageHead>
      {alsoDue.length > 0 ? (
        <Section title="Also due at these machines">
          <DueRows items={alsoDue} />
        </Section>
      ) : null}
      {points.length === 0 ? (
        <Empty>
          {mayEdit ? (
            <Link className="act" to={`/rounds/${round.id}/edit`}>
              Choose its points
            </Link>
          ) : (
            "An engineer chooses its points."
          )}
        </Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
            <thead>
              <tr className="ruled">
                <th scope="col">on the way</th>
                <th scope="col">state</th>
                <th scope="col" className="text-right">
                  last reading
                </th>
                <th scope="col">with</th>
                <th scope="col" className="text-right">
                  every
                </th>
                <th scope="col" className="text-right">
                  due
                </th>
              </tr>
            </thead>
            <tbody>
              {points.map((p, i) => (
                <tr key={p.id} className="ruled">
                  <td>
                    {i === 0 || points[i - 1]!.machineId !== p.machineId ? (
                      <span className="block text-sm text-ink-2">{p.machine}</span>
                    ) : null}
                    <Link to={`/points/${p.id}`} className="hover:underline">
                      {p.component}: {p.name}
                    </Link>
                  </td>
                  <td className="text-sm">
                    <StateWord state={p.state} />
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {p.last ? `${show(p.last.raw, p.quantity, { unit: p.unit })}, ${dayText(p.last.at, site)}` : "none"}
                  </td>
                  <td className="text-sm">
                    {p.instrument ? (
                      <Link to={`/instruments/${p.instrument.id}`} className="way">
                        {p.instrument.tag}
                      </Link>
                    ) : (
                      <Link to={`/instruments/fit/${p.id}`} className="way">
                        which fits?
                      </Link>
                    )}
                  </td>
                  <td className={`text-right whitespace-nowrap ${p.closer ? "text-ochre" : ""}`}>
                    {counted(p.everyDays, "day")}
                  </td>
                  <td className="text-right whitespace-nowrap text-ink-2">
                    <Due at={p.dueAt} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}
