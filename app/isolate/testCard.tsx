/** One test with how it is made, its caution, and its results to choose from. */
import { Form, Link } from "react-router";
import { preparations } from "@core";
import type { ShownTest } from "~/domain/isolation/index.server";
import { Button, Notice } from "~/ui/form";

const riskText = {
  none: "",
  care: "with care",
  deadhead: "closes an outlet against the pump",
  opens: "opens the circuit",
} as const;

/** "8 min with a gauge of the right range at the test port; opens the circuit". */
export function TestCost({ test }: { test: ShownTest }) {
  const ready = test.prepare === "none" ? "" : ` with ${preparations[test.prepare].label}`;
  return (
    <span className="text-sm text-ink-2">
      {`${test.minutes} min${ready}${riskText[test.risk] ? `; ${riskText[test.risk]}` : ""}`}
    </span>
  );
}

export function TestCard({ test, submission, mayEnter }: { test: ShownTest; submission: string; mayEnter: boolean }) {
  return (
    <div className="border-l-[3px] border-sea pl-4">
      <h3 className="[overflow-wrap:anywhere]">{test.text}</h3>
      <TestCost test={test} />
      <p className="mt-1">{test.how}</p>
      {test.caution ? (
        <div className="mt-2">
          <Notice tone="ochre" live={false}>
            {test.caution}
          </Notice>
        </div>
      ) : null}
      {mayEnter ? (
        <Form method="post" preventScrollReset className="mt-2" aria-label={test.text}>
          <input type="hidden" name="intent" value="result" />
          <input type="hidden" name="submission" value={submission} />
          <input type="hidden" name="test" value={test.id} />
          <fieldset>
            <legend className="sr-only">What did it show?</legend>
            <div className="flex flex-wrap gap-2">
              {test.results.map((r) => (
                <Button key={r.value} name="result" value={r.value} tone="plain">
                  {r.label}
                </Button>
              ))}
            </div>
          </fieldset>
        </Form>
      ) : (
        <p className="mt-1 text-sm text-ink-2">
          {`Results: ${test.results.map((r) => r.label.toLowerCase()).join("; ")}.`}
        </p>
      )}
      <p className="mt-2 text-xs text-ink-2">
        {test.procedure ? (
          <Link to={`/tests/${test.procedure}${test.component ? `?component=${test.component}` : ""}`} className="way">
            Guided in Tests
          </Link>
        ) : null}{" "}
        {`How often each result comes with each cause: ${test.basis}.`}
      </p>
    </div>
  );
}
