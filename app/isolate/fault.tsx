import { Link } from "react-router";
import type { Route } from "./+types/fault";
import { actText, causes, lowerFirst, type NamedFault } from "@core";
import { faultPage } from "~/domain/isolation/index.server";
import { guard, idParam, notFound } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead, Section } from "~/ui/page";
import { InZone, monthText, useSite } from "~/ui/site";
import { StateGlyph } from "~/ui/state";
import { OddsBar, oddsText } from "~/ui/odds";
import { BookLink } from "./bookLink";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `What the readings say, ${loaderData?.page.machine ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const id = idParam(params);
  const page = await faultPage(id);
  if (!page) throw notFound("circuit");
  return { id, page, mayBegin: mayAct(user.role, "technician"), mayBook: mayAct(user.role, "engineer") };
});

type Page = Route.ComponentProps["loaderData"]["page"];

const noneText: Record<string, string> = {
  "nothing drawn": "This circuit has no diagram with baselines to hold its readings against.",
  "does not fit":
    "The model does not fit this circuit's own baselines, so it is not used to judge. Put the diagram right first.",
  "few points": "It takes three points with a baseline to tell causes apart.",
  "nothing off": "Every reading is where the healthy circuit has it.",
};

/** The state of the circuit in one address: what the faults do, beside healthy. */
function whatIf(id: string, elements: readonly string[], named: readonly NamedFault[]): string {
  const search = new URLSearchParams();
  for (const { fault: f } of named)
    search.append("fault", `${elements.indexOf(f.element)}~${f.fault}~${Number(f.severity.toPrecision(5))}`);
  return `/fleet/circuits/${id}?${search}`;
}

function Findings({ page, ids, title, none }: { page: Page; ids: readonly string[]; title: string; none: string }) {
  const site = useSite();
  const points = page.points.filter((p) => ids.includes(p.id));
  return (
    <Section title={title} aside={points.length > 0 ? String(points.length) : undefined}>
      {points.length === 0 ? (
        <Empty>{none}</Empty>
      ) : (
        <ul>
          {points.map((p) => {
            const since = page.detail?.since[p.id];
            return (
              <li key={p.id} className="ruled flex items-center gap-3 py-2">
                <StateGlyph state={(p.state ?? "unproven") as Parameters<typeof StateGlyph>[0]["state"]} />
                <span className="min-w-0">
                  <Link to={`/points/${p.id}`} className="hover:underline">
                    {p.component}: {lowerFirst(p.name)}
                  </Link>
                  {since ? (
                    <span className="block text-sm text-ink-2">
                      {`away from its baseline since about ${monthText(since, site)}`}
                    </span>
                  ) : null}
                </span>
              </li>
            );
          })}
        </ul>
      )}
    </Section>
  );
}

function Named({ id, page, fault, mayBook }: { id: string; page: Page; fault: NamedFault; mayBook: boolean }) {
  const { act, label } = causes[fault.cause];
  return (
    <Section title={fault.text} aside={`odds ${oddsText(fault.share)}`}>
      <p className="pt-2">
        <strong className="font-semibold">{label}.</strong> {actText(act)}
      </p>
      {fault.places.length > 1 ? (
        <p className="text-ink-2">{`It may as well be ${fault.places.slice(1).join(" or ")}: the readings cannot part them.`}</p>
      ) : null}
      {mayBook && fault.explains[0] ? (
        <p className="mt-1 mb-4">
          <BookLink at={{ point: fault.explains[0], component: null }} act={act} from="fault" of={id} />
        </p>
      ) : null}
      <Findings page={page} ids={fault.explains} title="It accounts for" none="Nothing." />
    </Section>
  );
}

export default function Fault(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <FaultScreen {...props} />
    </InZone>
  );
}

function FaultScreen({ loaderData: { id, page, mayBegin, mayBook } }: Route.ComponentProps) {
  const { detail } = page;
  const named = detail?.named ?? [];
  const possible = [...named.flatMap((f) => f.alike), ...(detail?.possible ?? [])];
  const steady = page.points.length - (detail?.off.length ?? 0);
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Isolate", to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={
          named.length > 0
            ? `${page.machine}: ${named.map((f) => causes[f.cause].label.toLowerCase()).join("; ")}`
            : `${page.machine}: no fault is named`
        }
      >
        {named.length > 0
          ? `From the readings of the ${page.circuit.toLowerCase()} alone. It proves nothing: confirm with a ` +
            "test before anything is opened or altered."
          : page.failure
            ? "The readings could not be held against the model. The log says more."
            : page.none
              ? noneText[page.none]
              : detail
                ? "Some readings are off, and no single fault, nor two or three at once, is likelier than all others together."
                : "The readings have not been held against the model yet."}
      </PageHead>
      <p className="flex flex-wrap gap-x-5 pb-4">
        {mayBegin ? (
          <Link to={`/isolate/new?circuit=${id}&symptom=gaugeOdd`} className="act">
            {named.length > 0 ? "Confirm it with a test" : "Find it by tests"}
          </Link>
        ) : null}
        {named.length > 0 ? (
          <Link to={whatIf(id, page.elements ?? [], named)} className="way">
            See it in the circuit
          </Link>
        ) : null}
        <Link to={`/isolate/points/${id}`} className="way">
          Where a test point would help
        </Link>
      </p>
      {named.length > 0 ? (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-2">
          {named.map((fault) => (
            <Named id={id} key={fault.text} page={page} fault={fault} mayBook={mayBook} />
          ))}
        </div>
      ) : null}
      {detail ? (
        <div className="max-w-3xl">
          <Findings
            page={page}
            ids={detail.leaves}
            title={named.length > 0 ? "Left unexplained" : "Off the healthy circuit"}
            none={`Nothing is left over: the other ${steady} points are as a healthy circuit has them.`}
          />
        </div>
      ) : null}
      {detail && possible.length > 0 ? (
        <Section title={named.length > 0 ? "What else it may be" : "What it may be"} className="max-w-3xl">
          <ul>
            {possible.map((p) => (
              <li key={p.text} className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-2">
                <span className="min-w-0 [overflow-wrap:anywhere]">{p.text}</span>
                <OddsBar now={p.share} before={null} />
              </li>
            ))}
            <li className="ruled grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-2">
              <span>Something that the model does not have, or more faults at once</span>
              <OddsBar now={detail.unknown} before={null} />
            </li>
          </ul>
        </Section>
      ) : null}
    </>
  );
}
