import { useEffect } from "react";
import { Form, Link, redirect, useRevalidator } from "react-router";
import type { Route } from "./+types/points";
import { formatNumber, type TestPoint } from "@core";
import { askTestPoints, testPointsPage } from "~/domain/isolation/testPoints.server";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Button, Notice } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";
import { points as texts } from "./texts";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: texts.testPointsJuncteral(loaderData?.page.machine ?? "") },
];

export const loader = guard("viewer", async ({ params, user }) => {
  const id = idParam(params);
  const page = await testPointsPage(id);
  if (!page) throw notFound("circuit");
  return { page, mayAsk: mayAct(user.role, "technician") };
});

export const action = guardAction("technician", async ({ params }) => {
  const id = idParam(params);
  const done = await askTestPoints(id);
  return done.ok ? redirect(`/isolate/points/${id}`) : refused(done);
});

const POLL_MS = 1500;

/** "Coupling for a flow meter", "A reading in rounds". */
const kindText = ({ inRounds, meter }: TestPoint) =>
  inRounds ? texts.aPointReadIn : meter ? texts.aCouplingForA : texts.aCouplingForAGauge;

function Line({ point, rate }: { point: TestPoint; rate: number }) {
  const minutes = (value: number) => formatNumber(value, value < 10 ? 1 : 0);
  return (
    <li className="ruled py-3">
      <strong className="font-semibold [overflow-wrap:anywhere]">{point.text}</strong>
      <span className="block">{kindText(point)}</span>
      <span className="block text-sm text-ink-2">
        {texts.savesMinAnIsolation(
          point.inRounds ? texts.whatItShowsIs : texts.theInstrumentGoesOn,
          minutes(point.saved),
          minutes(point.error),
          point.opened > 0.05 ? texts.andTheCircuitIs(formatNumber(point.opened, 2)) : "",
          formatNumber(point.saved * rate, 0),
          point.sure ? "" : texts.notProvenChanceAmong,
        )}
      </span>
    </li>
  );
}

export default function Points(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <PointsScreen {...props} />
    </InZone>
  );
}

function PointsScreen({ loaderData: { page, mayAsk }, actionData, params }: Route.ComponentProps) {
  const site = useSite();
  const { revalidate } = useRevalidator();
  const running = page.asked && page.madeAt === null;
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => void revalidate(), POLL_MS);
    return () => clearInterval(timer);
  }, [running, revalidate]);
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: texts.isolate, to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={texts.whereATestPoint(page.machine)}
      >
        {texts.faultsOfThisCircuit}
      </PageHead>
      {problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      {page.failure ? <Notice tone="ochre">{page.failure}</Notice> : null}
      {page.drawn ? null : (
        <Notice tone="ochre" live={false}>
          {texts.thisCircuitHasNo} <Link to={`/fleet/circuits/${params.id}/draw`}>{texts.drawItFirst}</Link>.
        </Notice>
      )}
      {running ? (
        <p role="status" className="py-2">
          {texts.workingItOutAbout}
        </p>
      ) : page.drawn && mayAsk ? (
        <Form method="post" className="py-2">
          <Button tone={page.advice ? "plain" : undefined}>
            {page.advice ? texts.workItOutAgain : texts.workItOut}
          </Button>
        </Form>
      ) : null}
      {page.advice && !running ? (
        <Section
          title={texts.testPointsTheBest}
          aside={page.madeAt === null ? undefined : dayText(page.madeAt, site)}
          className="max-w-3xl"
        >
          {page.advice.points.length === 0 ? (
            <Empty>{texts.noneSavesTwoMinutes}</Empty>
          ) : (
            <ul>
              {page.advice.points.map((p) => (
                <Line key={p.at} point={p} rate={page.rate} />
              ))}
            </ul>
          )}
          <p className="mt-2 text-xs text-ink-2">
            {texts.faultsWereDrawnAn(
              page.advice.cases,
              formatNumber(page.advice.minutes, 0),
              formatNumber(page.rate, 2),
              page.own,
            )}
          </p>
        </Section>
      ) : null}
    </>
  );
}
