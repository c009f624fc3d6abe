import { useEffect } from "react";
import { Form, Link, redirect, useRevalidator } from "react-router";
import type { Route } from "./+types/points";
import { formatNumber, type TestPoint } from "@core";
import { askTestPoints, testPointsPage } from "~/domain/isolation/index.server";
import { guard, guardAction, idParam, notFound, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Button, Notice } from "~/ui/form";
import { Empty, PageHead, Section } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Test points, ${loaderData?.page.machine ?? ""} · Juncteral` },
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
  inRounds ? "A point read in rounds" : meter ? "A coupling for a meter in the line" : "A coupling for a gauge";

function Line({ point, rate }: { point: TestPoint; rate: number }) {
  const minutes = (value: number) => formatNumber(value, value < 10 ? 1 : 0);
  return (
    <li className="ruled py-3">
      <strong className="font-semibold [overflow-wrap:anywhere]">{point.text}</strong>
      <span className="block">{kindText(point)}</span>
      <span className="block text-sm text-ink-2">
        {point.inRounds
          ? "What it shows is known before anything is wrong, and the first test can be another one. "
          : "The instrument goes on in two minutes, under pressure and without tools. "}
        {`Saves ${minutes(point.saved)} min an isolation (standard error ${minutes(point.error)})` +
          (point.opened > 0.05
            ? `, and the circuit is opened ${formatNumber(point.opened, 2)} times less often an isolation`
            : "") +
          `: about ${formatNumber(point.saved * rate, 0)} min a year here.`}
        {point.sure ? null : " Not proven: chance among the drawn faults may account for it."}
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
          { label: "Isolate", to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={`${page.machine}: where a test point would help`}
      >
        Faults of this circuit are drawn at random, each is isolated as Juncteral proposes it, with the points that are
        there and with one more. What shortens the isolations most, in minutes and risk together, is listed.
      </PageHead>
      {problems?.form ? <Notice tone="verm">{problems.form}</Notice> : null}
      {page.failure ? <Notice tone="ochre">{page.failure}</Notice> : null}
      {page.drawn ? null : (
        <Notice tone="ochre" live={false}>
          This circuit has no diagram yet. <Link to={`/fleet/circuits/${params.id}/draw`}>Draw it first</Link>.
        </Notice>
      )}
      {running ? (
        <p role="status" className="py-2">
          Working it out: about half a minute. You can leave this page; it goes on.
        </p>
      ) : page.drawn && mayAsk ? (
        <Form method="post" className="py-2">
          <Button tone={page.advice ? "plain" : undefined}>{page.advice ? "Work it out again" : "Work it out"}</Button>
        </Form>
      ) : null}
      {page.advice && !running ? (
        <Section
          title="Test points, the best first"
          aside={page.madeAt === null ? undefined : dayText(page.madeAt, site)}
          className="max-w-3xl"
        >
          {page.advice.points.length === 0 ? (
            <Empty>None saves two minutes an isolation: the points that are there will do.</Empty>
          ) : (
            <ul>
              {page.advice.points.map((p) => (
                <Line key={p.at} point={p} rate={page.rate} />
              ))}
            </ul>
          )}
          <p className="mt-2 text-xs text-ink-2">
            {`${page.advice.cases} faults were drawn; an isolation takes ${formatNumber(page.advice.minutes, 0)}` +
              ` min on average. Per year: ${formatNumber(page.rate, 2)} isolations, from ${page.own} on record ` +
              "here in three years, leaning on one a year. Odds of faults and tests are common practice, " +
              "graded and not counted. A test point must suit the line’s pressure and the manufacturer’s documents."}
          </p>
        </Section>
      ) : null}
    </>
  );
}
