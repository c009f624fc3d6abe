/**
 * A circuit diagram from data: symbols, lines by style, and every measuring point at its port with its state, value and
 * margin. One component for every use; what a layer adds (a what-if) comes in through `changes` and `marks`.
 */
import { Link } from "react-router";
import {
  type UnitPreference,
  elementKinds,
  isNamed,
  LONGEST_DRAWN,
  portKey,
  tagPlaces,
  type Drawing,
  type LineData,
  type LineStyle,
  type Netlist,
} from "@core";
import { figureText } from "../figureText";
import { useSite } from "../site";
import { stateTone } from "../state";
import { CircuitSymbol } from "./symbols";
import { clipped, GaugeText, ROW, type DiagramPoint, type GaugeChange } from "./gaugeText";
import { PickPorts, type PortPick } from "./pickPorts";

export interface MissingGauge {
  element: string;
  port: string;
  text: string;
}

const dashes: Record<LineStyle, string | undefined> = {
  pressure: undefined,
  return: undefined,
  suction: undefined,
  case: "7 4",
  pilot: "3 3",
};
const widths: Record<LineStyle, number> = { pressure: 1.9, return: 1.3, suction: 2.6, case: 1.3, pilot: 1.1 };

export function CircuitDiagram(props: {
  netlist: Netlist;
  drawing: Drawing;
  points: ReadonlyMap<string, DiagramPoint>;
  missing?: readonly MissingGauge[];
  /** By point, where a what-if speaks; and elements that carry a fault in it. */
  changes?: ReadonlyMap<string, GaugeChange>;
  marks?: ReadonlySet<string>;
  /** Texts at ports, by "element/port": pressures of a moment. */
  readouts?: ReadonlyMap<string, string> | null;
  /** Ports that can be pressed, to be joined. */
  pick?: PortPick;
  /** Where an element leads, and the one that was chosen. */
  ways?: { to: (element: string) => string; chosen: string };
  label: string;
}) {
  const { netlist, drawing, points, missing = [], changes, marks, readouts, pick, ways, label } = props;
  const { units } = useSite();
  const placed = new Map(drawing.parts.map((p) => [p.element, p]));
  const pins = new Map<string, number>();
  const tags = tagPlaces(netlist, drawing);
  const joined = new Set(netlist.lines.flatMap((l) => [portKey(l.from), portKey(l.to)]));
  return (
    <div className="overflow-x-auto" role="group" aria-label={label}>
      <svg
        viewBox={`0 0 ${drawing.width} ${drawing.height}`}
        style={{
          width: "100%",
          maxWidth: drawing.width,
          minWidth: Math.min(drawing.width, Math.max(600, 0.66 * drawing.width)),
        }}
        className="block text-ink"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinejoin="round"
      >
        <g aria-hidden="true">
          {drawing.wires.map((w, i) => (
            <path
              key={i}
              d={`M${w.points.map(([x, y]) => `${x} ${y}`).join("L")}`}
              strokeWidth={widths[w.style]}
              strokeDasharray={dashes[w.style]}
              className={w.style === "return" || w.style === "case" ? "text-ink-2" : ""}
            />
          ))}
          {drawing.dots.map(([x, y], i) => (
            <circle key={i} cx={x} cy={y} r="3" fill="currentColor" stroke="none" />
          ))}
          {drawing.tanks.map((t, i) => (
            <g key={i} transform={`translate(${t.x} ${t.y})`}>
              <CircuitSymbol name="tank" />
            </g>
          ))}
        </g>
        {netlist.elements.map((e) => {
          const part = placed.get(e.id);
          if (!part) return null;
          const kind = elementKinds[e.kind];
          const gauges = netlist.gauges.filter((g) => g.element === e.id && points.has(g.pointId));
          const worst = marks?.has(e.id) ? "text-verm" : "";
          return (
            <g key={e.id} className={worst}>
              {e.kind === "tank" ? null : (
                <g
                  transform={
                    `translate(${part.x} ${part.y})` +
                    (part.flipped ? ` rotate(180 ${part.width / 2} ${part.height / 2})` : "")
                  }
                  aria-hidden="true"
                >
                  <CircuitSymbol name={kind.symbol} figures={e.data} joined={(port) => joined.has(`${e.id}/${port}`)} />
                </g>
              )}
              {isNamed(e, netlist.gauges) ? (
                <text
                  x={part.textX}
                  y={part.textY + 12}
                  stroke="none"
                  fill="currentColor"
                  className="text-[13px] font-semibold"
                >
                  {clipped(e.name, 20)}
                  <title>{`${e.name}, ${kind.label.toLowerCase()}`}</title>
                </text>
              ) : null}
              {ways && e.kind !== "tank" ? (
                <Link to={ways.to(e.id)} preventScrollReset aria-label={e.name} aria-current={ways.chosen === e.id}>
                  <title>{e.name}</title>
                  <rect
                    x={part.x - 5}
                    y={part.y - 5}
                    width={part.width + 10}
                    height={part.height + 10}
                    rx="2"
                    fill="transparent"
                    stroke={ways.chosen === e.id ? "var(--sea)" : "none"}
                    strokeWidth="2"
                    className="hover:stroke-[var(--sea)]"
                  />
                </Link>
              ) : null}
              {gauges.map((g, i) => {
                const point = points.get(g.pointId)!;
                return (
                  <GaugeText
                    key={g.pointId}
                    pointId={g.pointId}
                    point={point}
                    change={changes?.get(g.pointId)}
                    x={part.textX}
                    y={part.textY + 18 + i * ROW}
                  />
                );
              })}
            </g>
          );
        })}
        <g aria-hidden="true">
          {netlist.gauges.map((g) => {
            const at = drawing.ports[`${g.element}/${g.port}`];
            const point = points.get(g.pointId);
            if (!at || !point) return null;
            const key = `${g.element}/${g.port}`;
            const before = pins.get(key) ?? 0;
            pins.set(key, before + 1);
            return (
              <circle
                key={g.pointId}
                cx={at[0]}
                cy={at[1]}
                r={4 + before * 3}
                className={stateTone[point.state]}
                fill={before === 0 ? "currentColor" : "none"}
                strokeWidth="1.3"
              />
            );
          })}
        </g>
        {missing.map((m, i) => {
          const at = drawing.ports[`${m.element}/${m.port}`];
          return at ? (
            <circle
              key={i}
              cx={at[0]}
              cy={at[1]}
              r="5.5"
              strokeDasharray="2.500 2"
              fill="var(--paper)"
              className="text-ochre"
            >
              <title>{m.text}</title>
            </circle>
          ) : null;
        })}
        <g>
          {netlist.lines.map((l) => {
            const place = tags.get(l.id);
            return l.data && place ? (
              <text
                key={l.id}
                x={place.x}
                y={place.y - 2}
                textAnchor={place.anchor}
                stroke="none"
                className="fill-[var(--ink-2)] text-[11px]"
              >
                {clipped(l.data.tag, LONGEST_DRAWN)}
                <title>{lineText(l.data, units)}</title>
              </text>
            ) : null;
          })}
        </g>
        <g aria-hidden="true">
          {[...(readouts ?? [])].map(([key, text]) => {
            const at = drawing.ports[key];
            return at ? (
              <text
                key={key}
                x={at[0] - 8}
                y={at[1] - 5}
                textAnchor="end"
                fill="var(--sea)"
                stroke="var(--paper)"
                strokeWidth="4"
                paintOrder="stroke"
                className="text-[13px] font-semibold"
              >
                {text}
              </text>
            ) : null;
          })}
        </g>
        {pick ? (
          <PickPorts drawing={drawing} tank={`${netlist.elements.find((e) => e.kind === "tank")?.id}/T`} pick={pick} />
        ) : null}
      </svg>
    </div>
  );
}

const lineText = ({ made, tag, rating, bore, length, fittedOn }: LineData, units: UnitPreference) =>
  [
    `${made === "hose" ? "Hose" : "Pipe"} ${tag}`,
    ...(rating === null ? [] : [`rated ${figureText(rating, "bar", units)}`]),
    ...(bore === null ? [] : [`${figureText(bore, "mm", units)} bore`]),
    ...(length === null ? [] : [`${length} m`]),
    ...(fittedOn ? [`fitted ${fittedOn}`] : []),
  ].join(", ");
