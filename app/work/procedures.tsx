import { Link } from "react-router";
import type { Route } from "./+types/procedures";
import { componentKinds, stepsOf } from "@core";
import { allProcedures } from "~/domain/work/procedures.server";
import { guard } from "~/platform/guard.server";
import { PageHead, Section } from "~/ui/page";
import { procedures as texts } from "./texts";

export const meta = () => [{ title: texts.proceduresJuncteral }];

export const loader = guard("viewer", async () => {
  const all = await allProcedures();
  return {
    procedures: all.map((p) => ({
      id: p.copyId ?? p.id,
      title: p.title,
      purpose: p.purpose,
      kinds: p.kinds,
      steps: stepsOf(p).length,
      holds: stepsOf(p).filter((s) => s.hold).length,
      version: p.version,
      machine: p.machine,
      own: p.copyId !== null,
    })),
  };
});

type Row = Route.ComponentProps["loaderData"]["procedures"][number];

function Rows({ rows }: { rows: readonly Row[] }) {
  return (
    <ul>
      {rows.map((p) => (
        <li key={p.id} className="ruled grid gap-x-4 py-2 md:grid-cols-[minmax(0,1fr)_14rem]">
          <span className="min-w-0">
            <Link to={`/work/procedures/${p.id}`} className="font-semibold hover:underline">
              {p.title}
            </Link>
            {p.own ? (
              <span className="text-ink-2">{texts.version(p.machine ?? texts.thePlantOwn, p.version)}</span>
            ) : null}
            <span className="block text-ink-2">{p.purpose}</span>
          </span>
          <span className="text-sm text-ink-2">
            {texts.stepsHoldPoints(p.steps, p.holds)}
            <span className="block">{p.kinds.map((k) => componentKinds[k].label.toLowerCase()).join(", ")}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

export default function Procedures({ loaderData: { procedures } }: Route.ComponentProps) {
  const own = procedures.filter((p) => p.own);
  return (
    <>
      <PageHead
        crumbs={[{ label: texts.work, to: "/work" }, { label: texts.procedures }]}
        title={texts.proceduresInAll(procedures.length, own.length > 0 ? texts.ofThePlantOwn(own.length) : "")}
      >
        {texts.commonPracticeInGeneral}
      </PageHead>
      {own.length > 0 ? (
        <Section title={texts.thePlantOwnProcedures}>
          <Rows rows={own} />
        </Section>
      ) : null}
      <Section title={texts.asTheyShip}>
        <Rows rows={procedures.filter((p) => !p.own)} />
      </Section>
    </>
  );
}
