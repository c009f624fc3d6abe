import { Link } from "react-router";
import type { Route } from "./+types/instruments";
import { quantityOf } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";
import { instrumentList } from "~/domain/instruments/queries.server";

export const meta = () => [{ title: "Instruments · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  list: (await instrumentList()).map((i) => ({ ...i, calibrationDueAt: i.calibrationDueAt?.getTime() ?? null })),
  mayEdit: mayAct(user.role, "engineer"),
}));

const dueWords = { never: "never calibrated", out: "run out", soon: "due within a month", good: "valid" } as const;

export default function Instruments({ loaderData: { list, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  const show = useShow();
  const out = list.filter((i) => !i.retiredAt && (i.due === "out" || i.due === "never")).length;
  return (
    <>
      <PageHead
        crumbs={[{ label: "Rounds", to: "/rounds" }, { label: "Instruments" }]}
        title={
          list.length === 0
            ? "No instrument yet"
            : out === 0
              ? "Every instrument is in calibration"
              : `${out} of ${list.length} instruments are out of calibration`
        }
      >
        Which gauge was used last year is on every reading; what a gauge was worth is here.
        {mayEdit ? (
          <Link to="/instruments/new" className="way ml-3">
            Add an instrument
          </Link>
        ) : null}
      </PageHead>
      {list.length === 0 ? (
        <Empty>
          Add instruments so that each reading carries a measurement uncertainty.{" "}
          {mayEdit ? "Add the first one." : "An engineer adds the first one."}
        </Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_th]:py-1.5 [&_th]:pr-4">
            <thead>
              <tr className="ruled">
                <th scope="col">tag</th>
                <th scope="col">instrument</th>
                <th scope="col">reads</th>
                <th scope="col" className="text-right">
                  full scale
                </th>
                <th scope="col" className="text-right">
                  class
                </th>
                <th scope="col">calibration</th>
                <th scope="col" className="text-right">
                  readings
                </th>
              </tr>
            </thead>
            <tbody>
              {list.map((i) => (
                <tr key={i.id} className={`ruled ${i.retiredAt ? "text-ink-2" : ""}`}>
                  <td>
                    <Link to={`/instruments/${i.id}`} className="way">
                      {i.tag}
                    </Link>
                  </td>
                  <td>
                    {i.name}
                    {i.retiredAt ? " (retired)" : ""}
                  </td>
                  <td>{quantityOf(i.quantity).label.toLowerCase()}</td>
                  <td className="text-right whitespace-nowrap">{show(i.fullScale, i.quantity)}</td>
                  <td className="text-right">{i.accuracyClass} %</td>
                  <td
                    className={
                      i.due === "out" || i.due === "never" ? "text-verm" : i.due === "soon" ? "text-ochre" : ""
                    }
                  >
                    {dueWords[i.due]}
                    {i.calibrationDueAt ? `, ${dayText(i.calibrationDueAt, site)}` : ""}
                  </td>
                  <td className="text-right">{i.readings > 1000 ? "over 1000" : i.readings}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}
