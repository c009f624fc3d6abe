import { Link } from "react-router";
import type { Route } from "./+types/instruments";
import { quantityOf } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";
import { SortedTable } from "~/ui/sortedTable";
import { instrumentList } from "~/domain/instruments/queries.server";
import { instruments as texts } from "./texts";

export const meta = () => [{ title: texts.instrumentsJuncteral }];

export const loader = guard("viewer", async ({ user }) => ({
  list: (await instrumentList()).map((i) => ({ ...i, calibrationDueAt: i.calibrationDueAt?.getTime() ?? null })),
  mayEdit: mayAct(user.role, "engineer"),
}));

const dueWords = {
  never: texts.neverCalibrated,
  out: texts.runOut,
  soon: texts.dueWithinAMonth,
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
        crumbs={[{ label: texts.rounds, to: "/rounds" }, { label: texts.instruments }]}
        title={
          list.length === 0
            ? texts.noInstrumentYet
            : out === 0
              ? texts.everyInstrumentIsIn
              : texts.ofInstrumentsAreOut(out, list.length)
        }
      >
        {texts.eachReadingNamesIts}
        {mayEdit ? (
          <Link to="/instruments/new" className="way ml-3">
            {texts.addAnInstrument}
          </Link>
        ) : null}
      </PageHead>
      {list.length === 0 ? (
        <Empty>{texts.addInstrumentsSoThat(mayEdit ? texts.addTheFirstOne : texts.anEngineerAddsThe)}</Empty>
      ) : (
        <SortedTable
          label={texts.instruments}
          rows={list}
          rowClass={(i) => (i.retiredAt ? "text-ink-2" : "")}
          columns={[
            {
              id: "tag",
              label: texts.tag,
              by: (i) => i.tag,
              cell: (i) => (
                <Link to={`/instruments/${i.id}`} className="way">
                  {i.tag}
                </Link>
              ),
            },
            {
              id: "name",
              label: texts.instrument,
              by: (i) => i.name,
              cell: (i) => i.name + (i.retiredAt ? " (retired)" : ""),
            },
            {
              id: "reads",
              label: texts.reads,
              by: (i) => quantityOf(i.quantity).label,
              cell: (i) => quantityOf(i.quantity).label.toLowerCase(),
            },
            { id: "scale", label: texts.fullScale, right: true, cell: (i) => show(i.fullScale, i.quantity) },
            {
              id: "class",
              label: texts.classText,
              right: true,
              by: (i) => i.accuracyClass,
              cell: (i) => `${i.accuracyClass} %`,
            },
            {
              id: "calibration",
              label: texts.calibration,
              by: (i) => i.calibrationDueAt ?? 0,
              className: (i) => dueTone[i.due],
              cell: (i) => dueWords[i.due] + (i.calibrationDueAt ? `, ${dayText(i.calibrationDueAt, site)}` : ""),
            },
            {
              id: "readings",
              label: texts.readings,
              right: true,
              by: (i) => i.readings,
              cell: (i) => (i.readings > 1000 ? texts.over1000 : i.readings),
            },
          ]}
        />
      )}
    </>
  );
}
