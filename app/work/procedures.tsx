import { Link } from "react-router";
import type { Route } from "./+types/procedures";
import { componentKinds, stepsOf } from "@core";
import { allProcedures } from "~/domain/runs/index.server";
import { guard } from "~/platform/guard.server";
import { PageHead, Section } from "~/ui/page";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Procedures · Juncteral" }];

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
              <span className="text-ink-2">{`, ${p.machine ?? "the plant’s own"}, version ${p.version}`}</span>
            ) : null}
            <span className="block text-ink-2">{p.purpose}</span>
          </span>
          <span className="text-sm text-ink-2">
            {`${counted(p.steps, "step")}, ${counted(p.holds, "hold point")}`}
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
        crumbs={[{ label: "Work", to: "/work" }, { label: "Procedures" }]}
        title={`${procedures.length} procedures${own.length > 0 ? `, ${own.length} of the plant’s own` : ""}`}
      >
        Common practice, in general words. The manufacturer’s current document for the part goes first, and is asked for
        by number and revision. A procedure is begun from a piece of work.
      </PageHead>
      {own.length > 0 ? (
        <Section title="The plant’s own">
          <Rows rows={own} />
        </Section>
      ) : null}
      <Section title="As they ship">
        <Rows rows={procedures.filter((p) => !p.own)} />
      </Section>
    </>
  );
}
