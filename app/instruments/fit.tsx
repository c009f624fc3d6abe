import { Link } from "react-router";
import type { Route } from "./+types/fit";
import { formatNumber } from "@core";
import { guard, idParam } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Empty, PageHead } from "~/ui/page";
import { useShow } from "~/ui/site";
import { fitsOf } from "~/domain/instruments/queries.server";
import { fit as texts } from "./texts";

export const meta = () => [{ title: texts.whichInstrumentFitsJuncteral }];

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
      ? texts.noReadingOfThis
      : good.length === 0
        ? texts.noInstrumentOnThe
        : texts.fits(good[0]!.instrument.tag, good[0]!.fitness.preferred ? texts.best : texts.butNotInThe);
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
            {texts.itUsuallyReadsCan(
              show(need.expected, quantity),
              show(need.greatest, quantity),
              show(need.change, quantity, { digits: 2 }),
              need.viscosity ? texts.theOilHasMm(formatNumber(need.viscosity, 0)) : "",
            )}
          </>
        ) : (
          texts.logAFirstReading
        )}
      </PageHead>
      {need && fits.length === 0 ? (
        <Empty>
          {texts.noInstrumentReadsThis}{" "}
          {mayAdd ? (
            <Link className="act" to="/instruments/new">
              {texts.addAnInstrument}
            </Link>
          ) : (
            texts.anEngineerCanAdd
          )}
        </Empty>
      ) : null}
      <ul>
        {fits.map(({ instrument, fitness }) => (
          <li key={instrument.id} className="ruled grid gap-x-4 py-2.5 sm:grid-cols-[110px_minmax(0,1fr)]">
            <span className={`font-semibold ${fitness.fit ? "text-sea" : "text-verm"}`}>
              {fitness.preferred ? texts.fitsBest : fitness.fit ? texts.itFits : texts.doesNotFit}
            </span>
            <span>
              <Link to={`/instruments/${instrument.id}`} className="way">
                {instrument.tag}, {instrument.name}
              </Link>
              <span className="block text-sm text-ink-2">
                {texts.errorUOfAllowed(
                  show(fitness.permissible, quantity, { digits: 2 }),
                  show(fitness.expanded, quantity, { digits: 2 }),
                  show(fitness.allowed, quantity, { digits: 2 }),
                  formatNumber(fitness.place, 0),
                )}
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
      {need && others > 0 ? <p className="mt-3 text-sm text-ink-2">{texts.moreOnTheShelf(others)}</p> : null}
    </>
  );
}
