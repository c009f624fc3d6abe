/** What a fluid does to readings and parts. */
import { Link } from "react-router";
import { decimalsFor, formatNumber, lowerFirst } from "@core";
import { Section } from "~/ui/page";
import { dayText, useShow, useSite } from "~/ui/site";
import type { fluidPage } from "~/domain/oil/index.server";

type FluidPage = Awaited<ReturnType<typeof fluidPage>>;
const verdictTone = { good: "text-ink", outsideBest: "text-ochre", bad: "text-verm" } as const;

/** What correcting with the measured viscosity changed. */
export function ViscosityChanges({ page }: { page: FluidPage }) {
  const site = useSite();
  const show = useShow();
  const last = page.detail?.measured.at(-1);
  return (
    <Section
      title="What the measured viscosity changed"
      aside={last ? `laboratory: ${last.kv40} mm²/s at 40 °C on ${dayText(last.at, site)}` : undefined}
    >
      {page.changed.length === 0 ? (
        <p className="py-2 text-ink-2">
          {last
            ? "No leakage is read here that viscosity corrects."
            : "Not measured since it was filled: readings are corrected with what is stated."}
        </p>
      ) : (
        <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">newest reading of</th>
              <th scope="col" className="text-right">
                as read
              </th>
              <th scope="col" className="text-right">
                corrected as stated
              </th>
              <th scope="col" className="text-right">
                as measured
              </th>
              <th scope="col" className="text-right">
                changed by
              </th>
            </tr>
          </thead>
          <tbody>
            {page.changed.map((c) => (
              <tr key={c.pointId} className="ruled">
                <td>
                  <Link to={`/points/${c.pointId}`} className="way">
                    {c.component}, {lowerFirst(c.point)}
                  </Link>
                </td>
                <td className="text-right">{show(c.read, c.quantity, { unit: c.unit })}</td>
                <td className="text-right">{show(c.stated, c.quantity, { unit: c.unit })}</td>
                <td className="text-right">{show(c.measured, c.quantity, { unit: c.unit })}</td>
                <td className="text-right">
                  {c.measured >= c.stated ? "+" : "−"}
                  {formatNumber(
                    Math.abs(c.measured / c.stated - 1) * 100,
                    decimalsFor(Math.abs(c.measured / c.stated - 1) * 100, 2),
                  )}{" "}
                  %
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}

/** Each part that turns, at the start, at work and at its hottest. */
export function Suitability({ page }: { page: FluidPage }) {
  const show = useShow();
  return (
    <Section
      title="Does it suit?"
      aside={
        page.startTemperature === null
          ? "coldest start not stated"
          : `from a start at ${show(page.startTemperature, "oilTemperature")}`
      }
    >
      {!page.detail || page.detail.suitability.length === 0 ? (
        <p className="py-2 text-ink-2">Not known: no fluid is stated, or nothing that turns is on record.</p>
      ) : (
        <ul>
          {page.detail.suitability.map((s) => (
            <li key={s.componentId} className="ruled py-2">
              <strong className="font-semibold">{s.name}</strong>
              {s.usual ? (
                <span className="text-sm text-ink-2">
                  {" "}
                  by the usual range of its type; the manufacturer’s comes first
                </span>
              ) : null}
              {s.assumed ? (
                <span className="text-sm text-ink-2"> at usual temperatures: none of its oil is noted</span>
              ) : null}
              <ul className="text-sm">
                {s.findings.map((f) => (
                  <li key={f.at} className={verdictTone[f.verdict]}>
                    {f.at === "type"
                      ? "Type"
                      : f.at === "start"
                        ? "At the start"
                        : f.at === "working"
                          ? "At work"
                          : "Hottest"}
                    {f.temperature !== null && f.viscosity !== null
                      ? `, ${show(f.temperature, "oilTemperature")}: ${formatNumber(f.viscosity, decimalsFor(f.viscosity, 2))} mm²/s,`
                      : ":"}{" "}
                    {f.message}.
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
