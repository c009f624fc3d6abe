import { Link, redirect } from "react-router";
import type { Route } from "./+types/case";
import { symptoms } from "@core";
import {
  closeIsolation,
  doubtGauges,
  doubtLeaning,
  enterResult,
  withdrawResult,
  casePage,
} from "~/domain/isolation/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Notice } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";
import { oddsText } from "~/ui/odds";
import { WhatToDo, Suspects, Evidence } from "./caseParts";
import { Guided, NextTest, Close } from "./caseForms";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Isolate, ${loaderData?.page.machine ?? ""} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => ({
  page: await casePage(idParam(params)),
  mayEnter: mayAct(user.role, "technician"),
  mayBook: mayAct(user.role, "engineer"),
  submission: crypto.randomUUID(),
}));

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  const [anyTest, anyResult] = (fields.any ?? "").split("|");
  const done =
    fields.intent === "result"
      ? await enterResult(id, anyTest && anyResult ? { ...fields, test: anyTest, result: anyResult } : fields, user)
      : fields.intent === "withdraw"
        ? await withdrawResult(id, fields.resultId ?? "", user)
        : fields.intent === "gauges"
          ? await doubtGauges(id, fields.out === "yes")
          : fields.intent === "leaning"
            ? await doubtLeaning(id, Number(fields.place), fields.out === "yes")
            : await closeIsolation(id, fields, user);
  return done.ok ? redirect(`/isolate/${id}`) : refused(done);
});

export default function Case(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <CaseScreen {...props} />
    </InZone>
  );
}

function CaseScreen({ loaderData: { page, mayEnter, mayBook, submission }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const problems = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Isolate", to: "/isolate" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
        ]}
        title={`${page.machine}: ${symptoms[page.symptom].label.toLowerCase()}`}
      >
        {page.job ? (
          <Link to={`/jobs/${page.job.id}`} className="way mr-4">
            {`Job ${page.job.number}`}
          </Link>
        ) : null}
        {page.closed ? `Closed ${dayText(page.closed.at, site)}, ${page.closed.by}.` : null}
        {page.hasDiagram ? (
          <Link to={`/fleet/circuits/${page.circuitId}`} className="way">
            {`${page.closed ? " " : ""}Circuit and what-if`}
          </Link>
        ) : null}
      </PageHead>
      {page.closed ? (
        <Notice live={false}>
          <strong className="font-semibold">
            {page.closed.found.length > 0 ? page.closed.found.join("; ") : "None of what was suspected"}
          </strong>
          {page.closed.odds === null ? "" : `, given ${oddsText(page.closed.odds)} when it was closed`}.{" "}
          {page.closed.findings}
        </Notice>
      ) : (
        <WhatToDo page={page} mayBook={mayBook} />
      )}
      {problems?.result ? <Notice tone="verm">{problems.result}</Notice> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div>
          {page.closed ? null : <NextTest page={page} submission={submission} mayEnter={mayEnter} />}
          {mayEnter && !page.closed ? <Guided page={page} submission={submission} /> : null}
          <Evidence page={page} mayEnter={mayEnter} />
        </div>
        <div>
          <Suspects page={page} />
          {mayEnter && !page.closed ? <Close page={page} problems={problems} /> : null}
        </div>
      </div>
    </>
  );
}
