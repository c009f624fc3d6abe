import type { Route } from "./+types/lives";
import { lowerFirst, formatNumber } from "@core";
import { livesPage, type KindLives, type RunningPart, planSites } from "~/domain/plan/index.server";
import { guard, notFound } from "~/platform/guard.server";
import { Empty, PageHead, Section } from "~/ui/page";

export const meta = () => [{ title: "Lives by kind · Juncteral" }];

export const loader = guard("viewer", async ({ request }) => {
  const { site } = await planSites(new URL(request.url).searchParams.get("site"));
  if (!site) throw notFound("site");
  return { site, kinds: await livesPage(site.id) };
});

const hours = (value: number) => `${formatNumber(Number(value.toPrecision(3)), 0)}\u00a0h`;

const SHOWN = 5;
const named = (parts: readonly RunningPart[]) =>
  parts
    .slice(0, SHOWN)
    .map((p) => `${p.machine}, ${lowerFirst(p.component)} (${hours(p.age)})`)
    .join("; ") + (parts.length > SHOWN ? ` and ${parts.length - SHOWN} more` : "");

export default function Lives({ loaderData: { site, kinds } }: Route.ComponentProps) {
  const fitted = kinds.filter((k) => k.fit).length;
  return (
    <div className="max-w-4xl">
      <PageHead
        crumbs={[
          { label: "Plan", to: `/plan?site=${site.id}` },
          { label: "Scorecard", to: "/plan/scorecard" },
          { label: "Lives by kind" },
        ]}
        title={fitted === 0 ? "No kind has lives enough to tell how long it lasts" : "How long parts last here"}
      >
        Running hours from new to the limit. Parts that were replaced before, or run on, count as at least so old.
      </PageHead>
      {kinds.length === 0 ? <Empty>No life has been read against a limit yet.</Empty> : null}
      {kinds.map((k) => (
        <Section key={k.kind} title={k.kind} aside={`${k.crossed} of ${k.lives} came to the limit`}>
          {k.fit ? <Fitted k={k} fit={k.fit} /> : <p className="py-2 text-ink-2">{`Not fitted: ${k.none}.`}</p>}
        </Section>
      ))}
    </div>
  );
}

function Fitted({ k, fit }: { k: KindLives; fit: NonNullable<KindLives["fit"]> }) {
  const { advice } = k;
  const { shapeInterval: s, scaleInterval: c } = fit;
  return (
    <div className="py-2">
      <p>
        {`Weibull shape ${fit.shape.toFixed(2)} (95\u00a0% ${s.low.toFixed(2)} to ${s.high.toFixed(2)}), ` +
          `scale ${hours(fit.scale)} (${hours(c.low)} to ${hours(c.high)}).`}
      </p>
      {advice ? (
        <p className="mt-1">
          {advice.age === null
            ? `By age: ${advice.note}`
            : `By age, replacing at ${hours(advice.age)} would cost least. ${advice.note}`}{" "}
          <span className="text-ink-2">
            Crossing the limit is taken as failing here, which makes the age too early; the condition of each part
            decides.
          </span>
        </p>
      ) : null}
      {k.oldAndSteady.length > 0 ? (
        <p className="mt-1">{`Age would replace, condition would not: ${named(k.oldAndSteady)}. They show no wear that matters; read on.`}</p>
      ) : null}
      {k.youngAndWorn.length > 0 ? (
        <p className="mt-1 text-ochre">{`Condition asks sooner than age: ${named(k.youngAndWorn)}. Age would leave them in too long.`}</p>
      ) : null}
      {advice?.age && k.oldAndSteady.length === 0 && k.youngAndWorn.length === 0 ? (
        <p className="mt-1 text-ink-2">Age and condition ask for the same today.</p>
      ) : null}
    </div>
  );
}
