import type { Route } from "./+types/lives";
import { lowerFirst, formatNumber } from "@core";
import { livesPage, type KindLives, type RunningPart } from "~/domain/plan/lives.server";
import { planSites } from "~/domain/plan/pieces.server";
import { guard, notFound } from "~/platform/guard.server";
import { Empty, PageHead, Section } from "~/ui/page";
import { lives as texts } from "./texts";

export const meta = () => [{ title: texts.livesByKindJuncteral }];

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
    .join("; ") + (parts.length > SHOWN ? texts.andMore(parts.length - SHOWN) : "");

export default function Lives({ loaderData: { site, kinds } }: Route.ComponentProps) {
  const fitted = kinds.filter((k) => k.fit).length;
  return (
    <div className="max-w-4xl">
      <PageHead
        crumbs={[
          { label: texts.plan, to: `/plan?site=${site.id}` },
          { label: texts.scorecard, to: "/plan/scorecard" },
          { label: texts.livesByKind },
        ]}
        title={fitted === 0 ? texts.noKindHasLives : texts.howLongPartsLast}
      >
        {texts.runningHoursFromNew}
      </PageHead>
      {kinds.length === 0 ? <Empty>{texts.noLifeHasBeen}</Empty> : null}
      {kinds.map((k) => (
        <Section key={k.kind} title={k.kind} aside={texts.ofCameToThe(k.crossed, k.lives)}>
          {k.fit ? <Fitted k={k} fit={k.fit} /> : <p className="py-2 text-ink-2">{texts.notFitted(k.none)}</p>}
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
        {texts.weibullShape95To(
          fit.shape.toFixed(2),
          s.low.toFixed(2),
          s.high.toFixed(2),
          hours(fit.scale),
          hours(c.low),
          hours(c.high),
        )}
      </p>
      {advice ? (
        <p className="mt-1">
          {advice.age === null ? texts.byAge(advice.note) : texts.byAgeReplacingAt(hours(advice.age), advice.note)}{" "}
          <span className="text-ink-2">{texts.crossingTheLimitIs}</span>
        </p>
      ) : null}
      {k.oldAndSteady.length > 0 ? (
        <p className="mt-1">{texts.ageWouldReplaceCondition(named(k.oldAndSteady))}</p>
      ) : null}
      {k.youngAndWorn.length > 0 ? (
        <p className="mt-1 text-ochre">{texts.conditionAsksSoonerThan(named(k.youngAndWorn))}</p>
      ) : null}
      {advice?.age && k.oldAndSteady.length === 0 && k.youngAndWorn.length === 0 ? (
        <p className="mt-1 text-ink-2">{texts.ageAndConditionAsk}</p>
      ) : null}
    </div>
  );
}
