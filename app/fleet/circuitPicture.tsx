/** The diagram of a circuit as measured: each point where it is read, with its last reading and its margin. */
import { Link } from "react-router";
import { gaugesOf, quantityOf, stateWords } from "@core";
import { CircuitDiagram, type MissingGauge } from "~/ui/circuit/diagram";
import type { DiagramPoint } from "~/ui/circuit/gaugeText";
import { marginText } from "~/ui/marginRule";
import { dayText, useShow, useSite } from "~/ui/site";
import { Hoses } from "./hoses";
import type { CircuitDiagram as Diagram } from "~/domain/circuits/index.server";
import type { MachineCircuit, MachinePoint } from "~/domain/assets/index.server";

/** Points as the diagram shows them. */
export function useDiagramPoints(components: readonly { points: readonly MachinePoint[] }[]) {
  const site = useSite();
  const show = useShow();
  const points = new Map<string, DiagramPoint>();
  for (const p of components.flatMap((c) => c.points)) {
    const text = p.lastRaw === null ? "" : show(p.lastRaw, p.quantity, { unit: p.unit });
    points.set(p.id, {
      id: p.id,
      name: p.name,
      state: p.state,
      margin: p.margin,
      text,
      about: [
        `${p.name}: ${stateWords[p.state]}`,
        text ? `${text}${p.lastAt ? ` on ${dayText(p.lastAt, site)}` : ""}` : "not read yet",
        ...(p.margin ? [marginText(p.margin, p.state)] : []),
      ].join(", "),
    });
  }
  return points;
}

export function CircuitPicture({
  circuit,
  diagram,
  machine,
  mayEdit,
}: {
  circuit: MachineCircuit;
  diagram: Diagram;
  machine: string;
  mayEdit: boolean;
}) {
  const points = useDiagramPoints(circuit.components);
  const { netlist, drawing, fit } = diagram;
  const missing = circuit.missing.flatMap((m): MissingGauge[] => {
    const element = netlist.elements.find((e) => e.componentId === m.componentId);
    if (!element) return [];
    const wanted = { id: m.componentId, kind: "", name: "", displacement: null, speed: null };
    const [gauge] = gaugesOf({ ...wanted, points: [{ id: "", name: "", quantity: m.quantity }] }, element.kind);
    return gauge
      ? [
          {
            element: element.id,
            port: gauge.port,
            text: `No point for its ${quantityOf(m.quantity).short}: ${m.unknown}`,
          },
        ]
      : [];
  });
  const drawn = new Set(netlist.elements.map((e) => e.componentId));
  const left = circuit.components.filter((c) => !drawn.has(c.id));
  const met = fit?.met.filter((m) => m.deviations !== null && Math.abs(m.deviations) <= 2).length ?? 0;
  return (
    <div className="mb-4">
      <CircuitDiagram
        netlist={netlist}
        drawing={drawing}
        points={points}
        missing={missing}
        label={`Circuit diagram of ${machine}, ${circuit.name}. The list below has the same points.`}
      />
      <p className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm text-ink-2">
        <Link to={`/fleet/circuits/${circuit.id}`} className="way">
          What if …
        </Link>
        {mayEdit ? (
          <Link to={`/fleet/circuits/${circuit.id}/draw`} className="way">
            {diagram.drawnBy ? "Change the drawing" : "Put the drawing right"}
          </Link>
        ) : null}
        <span>
          {diagram.drawnBy
            ? `Drawn by ${diagram.drawnBy}.`
            : "Proposed from the list of components: it is how such circuits are usually built, not a record of this one."}
        </span>
        {fit ? (
          <span>
            {fit.fits
              ? `The model shows ${met} of ${fit.met.length} baselines within their uncertainty (${fit.free.length}` +
                " figures were fitted)."
              : `The model does not fit: it meets ${met} of ${fit.met.length} baselines, and is not used to judge.`}
          </span>
        ) : null}
      </p>
      <Hoses netlist={netlist} />
      {diagram.assumed.length + left.length > 0 ? (
        <details className="mt-1 text-sm text-ink-2">
          <summary className="text-sea">What was assumed</summary>
          <ul className="list-disc pl-5">
            {diagram.assumed.map((a) => (
              <li key={a}>{a}</li>
            ))}
            {left.map((c) => (
              <li key={c.id}>{`${c.name} is not in the diagram.`}</li>
            ))}
          </ul>
        </details>
      ) : null}
    </div>
  );
}
