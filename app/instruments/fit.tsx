import { Link } from "react-router";
import type { Route } from "./+types/fit";
import { formatNumber } from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { useShow } from "~/ui/site";
import { fitsOf } from "~/domain/instruments/index.server";

export const meta = () => [{ title: "Which instrument fits? · Juncteral" }];

export const loader = guard("viewer", async ({ params, user }) => ({
  ...(await fitsOf(idParam(params))),
  mayAdd: mayAct(user.role, "engineer"),
}));

export default function FitPage({ loaderData: { place, need, fits, others, mayAdd } }: Route.ComponentProps) {
  const show = useShow();
  const { quantity } = place.point;
  const good = fits.filter((f) => f.fitness.fit);
  const title =
    need === null
      ? "No reading of this point yet"
      : good.length === 0
        ? "No instrument on the shelf fits"
        : `${good[0]!.instrument.tag} fits${good[0]!.fitness.preferred ? " best" : ", but not in the best part of its scale"}`;
  return (
    <>
      <PageHead
        crumbs={[
          { label: place.machine, to: `/fleet/machines/${place.machineId}` },
          { label: place.component },
          { label: place.name, to: `/points/${place.id}` },
        ]}
        title={title}
      >
        {need ? (
          <>
            {`It usually reads ${show(need.expected, quantity)}, can come to ${show(need.greatest, quantity)}, ` +
              `and a change of ${show(need.change, quantity, { digits: 2 })} must be ` +
              `detectable: a quarter of the way from as new to the limit${need.viscosity ? `; the oil has ${formatNumber(need.viscosity, 0)} mm²/s` : ""}.`}
          </>
        ) : (
          "Log a first reading, so that its usual value is known."
        )}
      </PageHead>
      {need && fits.length === 0 ? (
        <Empty>
          No instrument reads this kind of quantity.{" "}
          {mayAdd ? (
            <Link className="act" to="/instruments/new">
              Add an instrument
            </Link>
          ) : (
            "An engineer can add one."
          )}
        </Empty>
      ) : null}
      <ul>
        {fits.map(({ instrument, fitness }) => (
          <li key={instrument.id} className="ruled grid gap-x-4 py-2.5 sm:grid-cols-[110px_minmax(0,1fr)]">
            <span className={`font-semibold ${fitness.fit ? "text-sea" : "text-verm"}`}>
              {fitness.preferred ? "fits best" : fitness.fit ? "fits" : "does not fit"}
            </span>
            <span>
              <Link to={`/instruments/${instrument.id}`} className="way">
                {instrument.tag}, {instrument.name}
              </Link>
              <span className="block text-sm text-ink-2">
                {`Error ± ${show(fitness.permissible, quantity, { digits: 2 })}, U ${show(fitness.expanded, quantity, { digits: 2 })} ` +
                  `of ${show(fitness.allowed, quantity, { digits: 2 })} allowed; reads at ${formatNumber(fitness.place, 0)} % of its scale.`}
              </span>
              {fitness.reasons.map((r) => (
                <span key={r.message} className={`block text-sm ${r.must ? "text-verm" : "text-ink-2"}`}>
                  {r.message}
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
      {need && others > 0 ? (
        <p className="mt-3 text-sm text-ink-2">{`${others} more on the shelf read something else.`}</p>
      ) : null}
    </>
  );
}
