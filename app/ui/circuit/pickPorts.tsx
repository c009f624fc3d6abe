/** Ports that can be pressed, to be joined by a line. */
import { symbolSizes, type Drawing } from "@core";

const TANK_PORT = symbolSizes.tank!.ports.T!;

/** Choosing ports in the diagram itself. */
export interface PortPick {
  /** "element/port" that was chosen first; empty: none. */
  from: string;
  nameOf: (key: string) => string;
  onPick: (key: string) => void;
}

/** Where ports can be pressed; the reservoir is drawn at every line that ends in it. */
export function PickPorts({
  drawing,
  tank,
  pick: { from, nameOf, onPick },
}: {
  drawing: Drawing;
  tank: string;
  pick: PortPick;
}) {
  const spots = [
    ...Object.entries(drawing.ports),
    ...drawing.tanks.map((t): [string, [number, number]] => [tank, [t.x + TANK_PORT.x, t.y]]),
  ];
  return spots.map(([key, [x, y]], i) =>
    nameOf(key) === "" ? null : (
      <circle
        key={i}
        cx={x}
        cy={y}
        r="9"
        fill={key === from ? "var(--sea)" : "transparent"}
        stroke="var(--sea)"
        strokeWidth="1"
        strokeDasharray={key === from ? undefined : "2 2"}
        className="cursor-pointer hover:fill-[var(--sea-soft)]"
        onClick={() => onPick(key)}
      >
        <title>{nameOf(key)}</title>
      </circle>
    ),
  );
}
