import { Link } from "react-router";
import type { Route } from "./+types/rounds";
import { formatNumber } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { Due } from "~/ui/due";
import { roundList } from "~/domain/rounds/queries.server";
import { rounds as texts } from "./texts";

export const meta = () => [{ title: texts.roundsJuncteral }];

export const loader = guard("viewer", async ({ user }) => ({
  list: await roundList(),
  mayWalk: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
}));

const counts = [
  texts.noRoundIs,
  texts.oneRoundIs,
  texts.twoRoundsAre,
  texts.threeRoundsAre,
  texts.fourRoundsAre,
  texts.fiveRoundsAre,
];

export default function Rounds({ loaderData: { list, mayWalk, mayEdit } }: Route.ComponentProps) {
  const late = list.filter((r) => r.late > 0).length;
  return (
    <>
      <PageHead
        title={
          list.length === 0
            ? texts.noRoundYet
            : late === 0
              ? texts.noRoundIsLate
              : texts.late(counts[late] ?? texts.roundsAre(late))
        }
      >
        {texts.readingsInWalkingOrder}
        <span className="ml-3 inline-flex flex-wrap gap-x-4">
          <Link to="/instruments" className="way">
            {texts.instruments}
          </Link>
          <Link to="/tests" className="way">
            {texts.tests}
          </Link>
          {mayEdit ? (
            <Link to="/rounds/new" className="way">
              {texts.addARound}
            </Link>
          ) : null}
        </span>
      </PageHead>
      {list.length === 0 ? (
        <Empty>
          {texts.aRoundIsA}{" "}
          {mayEdit ? (
            <>
              <Link to="/rounds/new" className="act">
                {texts.addARound}
              </Link>{" "}
              <Link to="/fleet/begin" className="way">
                {texts.orAddAMachine}
              </Link>
            </>
          ) : (
            texts.anEngineerAddsThe
          )}
        </Empty>
      ) : (
        <ul>
          {list.map((r) => (
            <li
              key={r.id}
              className="ruled grid items-center gap-x-6 gap-y-1 py-3 sm:grid-cols-[minmax(0,1fr)_130px_150px_auto]"
            >
              <span>
                <Link to={`/rounds/${r.id}`} className="font-semibold hover:underline">
                  {r.name}
                </Link>
                <span className="block text-sm text-ink-2">
                  {texts.every(
                    r.points,
                    r.intervalHours === null
                      ? texts.days(r.intervalDays)
                      : texts.runningHours(formatNumber(r.intervalHours, 0)),
                    r.closer > 0 ? texts.readMoreOftenNear(r.closer) : "",
                    r.walkedBy ? `, ${r.walkedBy}` : "",
                  )}
                </span>
              </span>
              <span className={r.late > 0 ? "text-verm" : ""}>
                {r.points === 0 ? texts.noPoints : r.due === 0 ? texts.nothingDue : texts.due(r.due)}
              </span>
              <span className="text-ink-2">{r.dueAt === null ? "" : <Due at={r.dueAt} />}</span>
              <span className="flex gap-4">
                {mayWalk && r.points > 0 ? (
                  <Link to={`/rounds/${r.id}/walk`} reloadDocument className="act">
                    {texts.walkIt}
                  </Link>
                ) : null}
                <Link to={`/rounds/${r.id}/sheet`} className="way">
                  {texts.paper}
                </Link>
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
