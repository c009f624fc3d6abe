import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Route } from "./+types/calculator";
import { calculatorGroups, calculatorOf, runCalculator } from "@core";
import { factsOf } from "~/domain/assets/index.server";
import { guard, notFound } from "~/platform/guard.server";
import { isUuid } from "~/platform/validate";
import { GivenFields, OutcomeView } from "~/ui/calculation";
import { ComponentPicker } from "~/ui/componentPicker";
import { Button } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { useSite } from "~/ui/site";
import { asText } from "./asText";
import { addressOf, typedFrom, type Typed } from "~/ui/typed";

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `${calculatorOf(params.calculator ?? "")?.title ?? "Calculators"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, request }) => {
  const calculator = calculatorOf(params.calculator ?? "");
  if (!calculator) throw notFound("calculation");
  const { search, searchParams } = new URL(request.url);
  const from = searchParams.get("from");
  return { id: calculator.id, search, taken: from && isUuid(from) ? await factsOf(from) : null };
});

export default function CalculatorPage({ loaderData }: Route.ComponentProps) {
  return <Calculation key={loaderData.id + loaderData.search} {...loaderData} />;
}

function Calculation({ id, search, taken }: Route.ComponentProps["loaderData"]) {
  const calculator = calculatorOf(id)!;
  const site = useSite();
  const navigate = useNavigate();
  const [typed, setTyped] = useState<Typed>(() =>
    typedFrom(calculator, new URLSearchParams(search), taken?.facts ?? {}, site.units),
  );
  const [copied, setCopied] = useState<string | null>(null);
  const result = useMemo(() => runCalculator(calculator, typed, site.units), [calculator, typed, site.units]);
  const address = addressOf(calculator, typed, taken?.componentId ?? null, site.units);
  const outcome = result.ok ? result.outcome : null;
  const takes = Object.values(calculator.fields).some((f) => f.take);

  // the address follows what is typed; no request is made for it
  useEffect(() => {
    const timer = setTimeout(() => window.history.replaceState(window.history.state, "", address), 250);
    return () => clearTimeout(timer);
  }, [address]);

  const copy = (what: string, text: string) =>
    navigator.clipboard.writeText(text).then(
      () => setCopied(`${what} copied.`),
      () => setCopied("The browser does not allow copying here."),
    );
  return (
    <>
      <PageHead
        crumbs={[
          { label: "Calculators", to: "/calculators" },
          { label: calculatorGroups[calculator.group] },
          { label: calculator.title },
        ]}
        title={calculator.asks}
      />
      <div className="grid gap-x-8 gap-y-4 xl:grid-cols-[280px_minmax(0,1fr)]">
        <div>
          {takes ? (
            <div className="mb-3">
              <ComponentPicker
                label="Take values from a component"
                placeholder="Take from a component"
                onPick={(componentId) => void navigate(`/calculators/${calculator.id}?from=${componentId}`)}
              />
              {taken ? (
                <p className="mt-1 text-sm text-ink-2">
                  {`Taken from ${taken.name}; what you change is yours.`}{" "}
                  <Link to={`/calculators/${calculator.id}`} className="way">
                    Leave it
                  </Link>
                </p>
              ) : null}
            </div>
          ) : null}
          <form onSubmit={(e) => e.preventDefault()} noValidate aria-label="Inputs">
            <GivenFields
              fields={calculator.fields}
              typed={typed}
              problems={result.ok ? {} : result.problems}
              onChange={(name, value) => {
                setTyped((t) => ({ ...t, [name]: value }));
                setCopied(null);
              }}
            />
          </form>
        </div>
        <div className="min-w-0">
          <OutcomeView title={calculator.title} outcome={outcome} caution={calculator.caution} />
          {outcome ? (
            <p className="flex flex-wrap items-center gap-3">
              <Button
                type="button"
                tone="plain"
                onClick={() =>
                  void copy("Text", asText(calculator, typed, outcome, site, window.location.origin + address))
                }
              >
                Copy as text
              </Button>
              <Button type="button" tone="plain" onClick={() => void copy("Address", window.location.origin + address)}>
                Copy the address
              </Button>
              <span role="status" className="text-sm text-ink-2">
                {copied}
              </span>
            </p>
          ) : null}
        </div>
      </div>
    </>
  );
}
