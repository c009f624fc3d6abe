import { Link } from "react-router";
import type { Route } from "./+types/rounds";
import { formatNumber } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { Due } from "~/ui/due";
import { roundList } from "~/domain/rounds/index.server";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Rounds · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  list: await roundList(),
  mayWalk: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
}));

const counts = [
  "No round is",
  "One round is",
  "Two rounds are",
  "Three rounds are",
  "Four rounds are",
  "Five rounds are",
];

export default function Rounds({ loaderData: { list, mayWalk, mayEdit } }: Route.ComponentProps) {
  const late = list.filter((r) => r.late > 0).length;
  return (
    <>
      <PageHead
        title={
          list.length === 0
            ? "No round yet"
            : late === 0
              ? "No round is late"
              : `${counts[late] ?? `${late} rounds are`} late`
        }
      >
        Readings in walking order, with their conditions, on a tablet with or without a network.
        <span className="ml-3 inline-flex flex-wrap gap-x-4">
          <Link to="/instruments" className="way">
            Instruments
          </Link>
          <Link to="/tests" className="way">
            Tests
          </Link>
          {mayEdit ? (
            <Link to="/rounds/new" className="way">
              Add a round
            </Link>
          ) : null}
        </span>
      </PageHead>
      {list.length === 0 ? (
        <Empty>
          A round is a list of points in the order in which they are walked.{" "}
          {mayEdit ? (
            <>
              <Link to="/rounds/new" className="act">
                Add a round
              </Link>{" "}
              <Link to="/fleet/begin" className="way">
                Or add a machine from a template, with its round
              </Link>
            </>
          ) : (
            "An engineer adds the first one."
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
                  {`${r.points} ${r.points === 1 ? "point" : "points"}, every ${
                    r.intervalHours === null
                      ? counted(r.intervalDays, "day")
                      : `${formatNumber(r.intervalHours, 0)} running hours`
                  }` +
                    `${r.closer > 0 ? `, ${r.closer} read more often near their limit` : ""}${r.walkedBy ? `, ${r.walkedBy}` : ""}`}
                </span>
              </span>
              <span className={r.late > 0 ? "text-verm" : ""}>
                {r.points === 0 ? "no points" : r.due === 0 ? "nothing due" : `${r.due} due`}
              </span>
              <span className="text-ink-2">{r.dueAt === null ? "" : <Due at={r.dueAt} />}</span>
              <span className="flex gap-4">
                {mayWalk && r.points > 0 ? (
                  <Link to={`/rounds/${r.id}/walk`} reloadDocument className="act">
                    Walk it
                  </Link>
                ) : null}
                <Link to={`/rounds/${r.id}/sheet`} className="way">
                  Paper
                </Link>
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
