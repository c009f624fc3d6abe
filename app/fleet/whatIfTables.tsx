/** The figures of a what-if as tables: at every port, and at every gauge. */
import { Link } from "react-router";
import type { Route } from "./+types/circuit";
import { agrees, distanceOf, type Netlist } from "@core";
import type { GaugeChange } from "~/ui/circuit/gaugeText";
import { useShow } from "~/ui/site";
import type { useSolver } from "./useSolver";

type Loaded = Route.ComponentProps["loaderData"];
type Answer = NonNullable<ReturnType<typeof useSolver>["answer"]>;

/** Pressure, flow and warmth wherever a line is joined. */
export function Ports({ ports, netlist }: { ports: Answer["ports"]; netlist: Netlist }) {
  const show = useShow();
  const nameOf = (id: string) => netlist.elements.find((e) => e.id === id)?.name ?? "";
  return (
    <details className="mt-4 mb-4">
      <summary className="text-sea">Pressure, flow and warmth at every port, at work</summary>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Ports">
        <table className="mt-2 w-full text-sm [&_td]:py-0.5 [&_td]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">port</th>
              <th scope="col" className="text-right">
                pressure
              </th>
              <th scope="col" className="text-right">
                flow out
              </th>
              <th scope="col" className="text-right">
                over the tank
              </th>
            </tr>
          </thead>
          <tbody>
            {ports.map((p) => (
              <tr key={`${p.element}/${p.port}`} className="ruled">
                <td>
                  {nameOf(p.element)}, {p.label}
                </td>
                <td className="text-right">{show(p.pressure, "pressure")}</td>
                <td className="text-right">{show(p.flow, "flow")}</td>
                <td className="text-right">{p.warmer === null ? "stands" : show(p.warmer, "temperatureRise")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** Each gauge: healthy, as asked, and as it stands now. */
export function Gauges({
  points,
  healthy,
  changes,
  modelled,
  computed,
}: {
  points: Loaded["points"];
  healthy: ReadonlyMap<string, number | null>;
  changes: ReadonlyMap<string, GaugeChange>;
  /** What the model says of a point, as asked. */
  modelled: (id: string) => Parameters<typeof distanceOf>[1];
  /** The circuit has been solved: what has no figure has no model. */
  computed: boolean;
}) {
  const show = useShow();
  return (
    <table className="w-full text-[13px] [&_td]:py-1 [&_td+td]:pl-2 [&_th]:py-1 [&_th+th]:pl-2">
      <thead>
        <tr className="ruled">
          <th scope="col">gauge</th>
          <th scope="col" className="text-right">
            healthy
          </th>
          <th scope="col" className="text-right">
            as asked
          </th>
          <th scope="col" className="text-right">
            now
          </th>
        </tr>
      </thead>
      <tbody>
        {points.map((p) => {
          const before = healthy.get(p.id) ?? null;
          const change = changes.get(p.id);
          return (
            <tr key={p.id} className="ruled align-top">
              <td>
                <Link to={`/points/${p.id}`} className="hover:underline">
                  {p.name}
                </Link>
                <span className="block text-xs text-ink-2">{p.component}</span>
              </td>
              <td className="text-right whitespace-nowrap">
                {before === null ? "–" : show(before, p.quantity, { unit: p.unit })}
              </td>
              <td className="text-right whitespace-nowrap">
                <span className="font-semibold">{change?.text ?? "–"}</span>
                <span
                  className={`block text-xs ${change?.sign === 1 ? "text-verm" : change?.sign === -1 ? "text-sea" : "text-ink-2"}`}
                >
                  {change ? change.change || "no change" : computed ? "not modelled" : ""}
                </span>
              </td>
              <td className="text-right whitespace-nowrap">
                {p.now ? show(p.now.value, p.quantity, { unit: p.unit }) : "–"}
                {p.now && distanceOf(p.now, modelled(p.id)) !== null ? (
                  <span className="block text-xs text-ink-2">
                    {agrees(distanceOf(p.now, modelled(p.id))) ? "fits" : "does not fit"}
                  </span>
                ) : null}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
