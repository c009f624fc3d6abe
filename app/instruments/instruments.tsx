import { Link } from "react-router";
import type { Route } from "./+types/instruments";
import { quantityOf } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";
import { SortedTable } from "~/ui/sortedTable";
import { instrumentList } from "~/domain/instruments/index.server";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Instruments · Juncteral" }];

export const loader = guard("viewer", async ({ user }) => ({
  list: (await instrumentList()).map((i) => ({ ...i, calibrationDueAt: i.calibrationDueAt?.getTime() ?? null })),
  mayEdit: mayAct(user.role, "engineer"),
}));

const dueWords = {
  never: "never calibrated",
  out: "run out",
  soon: "due within a month",
  good: "valid",
} as const;
const dueTone = { never: "text-verm", out: "text-verm", soon: "text-ochre", good: "" } as const;

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
              : `${out} of ${counted(list.length, "instrument")} ${out === 1 ? "is" : "are"} out of calibration`
        }
      >
        Each reading names its instrument; what the instrument was worth, its checks and calibrations, stands here.
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
        <SortedTable
          label="Instruments"
          rows={list}
          rowClass={(i) => (i.retiredAt ? "text-ink-2" : "")}
          columns={[
            {
              id: "tag",
              label: "tag",
              by: (i) => i.tag,
              cell: (i) => (
                <Link to={`/instruments/${i.id}`} className="way">
                  {i.tag}
                </Link>
              ),
            },
            {
              id: "name",
              label: "instrument",
              by: (i) => i.name,
              cell: (i) => i.name + (i.retiredAt ? " (retired)" : ""),
            },
            {
              id: "reads",
              label: "reads",
              by: (i) => quantityOf(i.quantity).label,
              cell: (i) => quantityOf(i.quantity).label.toLowerCase(),
            },
            { id: "scale", label: "full scale", right: true, cell: (i) => show(i.fullScale, i.quantity) },
            {
              id: "class",
              label: "class",
              right: true,
              by: (i) => i.accuracyClass,
              cell: (i) => `${i.accuracyClass} %`,
            },
            {
              id: "calibration",
              label: "calibration",
              by: (i) => i.calibrationDueAt ?? 0,
              className: (i) => dueTone[i.due],
              cell: (i) => dueWords[i.due] + (i.calibrationDueAt ? `, ${dayText(i.calibrationDueAt, site)}` : ""),
            },
            {
              id: "readings",
              label: "readings",
              right: true,
              by: (i) => i.readings,
              cell: (i) => (i.readings > 1000 ? "over 1000" : i.readings),
            },
          ]}
        />
      )}
    </>
  );
}
