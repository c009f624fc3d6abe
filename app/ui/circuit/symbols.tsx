/**
 * The symbols, drawn after the conventions of ISO 1219-1: a pump's filled triangle points to its outlet, an arrow across
 * means adjustable, broken lines are pilot and drain. Each in the coordinates of its own size (core/circuit/drawing).
 */
import type { ReactNode } from "react";
import { symbolSizes } from "@core";

const broken = { strokeDasharray: "4 3" };

/** Square with its spring to the right: what pressure valves have in common. */
function PressureValve({ open, from, children }: { open: boolean; from: "N" | "S"; children?: ReactNode }) {
  const x = open ? 22 : 15;
  return (
    <>
      <path d="M22 0V6M22 38V44" />
      <rect x="6" y="6" width="28" height="32" fill="var(--sheet)" />
      <path d={from === "N" ? `M${x} 10V34m-4 -7l4 7l4 -7` : `M${x} 34V10m-4 7l4 -7l4 7`} />
      <path d="M34 28l2 -4l2.500 8l2.500 -8l2.500 8l1 -4" strokeWidth="1.1" />
      <path d={from === "N" ? "M22 3H2V22H6" : "M22 41H2V22H6"} {...broken} strokeWidth="1.1" />
      {children}
    </>
  );
}

const Check = ({ x, y }: { x: number; y: number }) => (
  <>
    <path d={`M${x - 8} ${y + 9}L${x} ${y + 1}L${x + 8} ${y + 9}`} transform={`rotate(180 ${x} ${y + 5})`} />
    <circle cx={x} cy={y - 1} r="5.5" fill="var(--sheet)" />
  </>
);

/** Boxes of a valve: crossed, the middle one, straight. The ports are those of the middle one. */
function SpoolValve({ centre, proportional }: { centre: number; proportional: boolean }) {
  const middle = [
    "M55 8V2m-4 6h8M77 8V2m-4 6h8M55 32v6m-4 -6h8M77 32v6m-4 -6h8",
    "M55 2V38M77 2V38M55 20H77",
    "M55 38V28H77V38M55 8V2m-4 6h8M77 8V2m-4 6h8",
    "M55 2V14H77V2M77 14V38M55 32v6m-4 -6h8",
  ][Math.round(centre)];
  return (
    <>
      <rect x="12" y="2" width="36" height="36" fill="var(--sheet)" />
      <rect x="48" y="2" width="36" height="36" fill="var(--sheet)" />
      <rect x="84" y="2" width="36" height="36" fill="var(--sheet)" />
      <path d={middle} />
      <path d="M22 35V6m-3 6l3 -6l3 6M38 5V34m-3 -6l3 6l3 -6" strokeWidth="1.3" />
      <path
        d="M93 35L112 6m-6.500 2.500l6.500 -2.500l-1 7M93 5L112 34m-6.500 -2.500l6.500 2.500l-1 -7"
        strokeWidth="1.3"
      />
      <path d="M0 12H12V30H0ZM0 30L12 12M132 12H120V30H132ZM120 30L132 12" strokeWidth="1.2" />
      {proportional ? <path d="M12 -2H120M12 42H120" strokeWidth="1.2" /> : null}
      <path d="M55 0V2M77 0V2M55 38V40M77 38V40" />
    </>
  );
}

const Holding = ({ counter }: { counter: boolean }) => (
  <>
    <path d="M16 0V8M16 28V40" />
    <rect
      x="4"
      y="6"
      width="26"
      height="26"
      fill="var(--sheet)"
      strokeWidth="1.2"
      strokeDasharray={counter ? undefined : "5 2.500"}
    />
    <Check x={16} y={17} />
    <path d="M38 40V20H30" {...broken} strokeWidth="1.1" />
    {counter ? <path d="M30 12l2 -3l3 6l3 -6l2 3" strokeWidth="1.1" /> : null}
  </>
);

const Pump = ({ variable, drained }: { variable: boolean; drained: boolean }) => (
  <>
    <path d="M22 0V2M22 42V44" />
    <circle cx="22" cy="22" r="20" fill="var(--sheet)" />
    <path d="M22 3L15 14H29Z" fill="currentColor" stroke="none" />
    {variable ? <path d="M4 40L40 4m-7 1.500l7 -1.500l-1.500 7" strokeWidth="1.3" /> : null}
    {drained ? <path d="M42 22H46V44" strokeDasharray="7 4" strokeWidth="1.3" /> : null}
  </>
);

const diamond = "M22 3L41 22L22 41L3 22Z";

type Joined = (port: string) => boolean;

const drawings: Record<string, (figures: Record<string, number>, joined: Joined) => ReactNode> = {
  tank: () => <path d="M0 2V14H32V2M16 0V10" />,
  strainer: () => (
    <>
      <path d="M16 0V3M16 29V32" />
      <path d="M16 3L29 16L16 29L3 16Z" fill="var(--sheet)" />
      <path d="M5 16H27" strokeDasharray="3 2.500" strokeWidth="1.2" />
    </>
  ),
  fixedPump: (_figures, joined) => <Pump variable={false} drained={joined("case")} />,
  variablePump: (_figures, joined) => <Pump variable drained={joined("case")} />,
  loopPump: (_figures, joined) => (
    <>
      <path d="M12 0V8M32 0V8" />
      <circle cx="22" cy="24" r="19" fill="var(--sheet)" />
      <path d="M22 6L16 16H28ZM22 42L16 32H28Z" fill="currentColor" stroke="none" />
      <path d="M5 41L39 7m-7 1.500l7 -1.500l-1.500 7" strokeWidth="1.3" />
      {joined("case") ? <path d="M41 24H46V44" strokeDasharray="7 4" strokeWidth="1.3" /> : null}
    </>
  ),
  flushing: () => (
    <>
      <rect x="2" y="8" width="40" height="28" fill="var(--sheet)" />
      <path
        d="M8 0V8M36 0V8M22 36V44M8 12L19 30m-1 -6l1 6l-6 -2.500M36 12L25 30m1 -6l-1 6l6 -2.500"
        strokeWidth="1.2"
      />
    </>
  ),
  relief: () => <PressureValve open={false} from="N" />,
  unloader: () => (
    <>
      <path d="M22 0V6M22 38V44" />
      <rect x="6" y="6" width="32" height="32" fill="var(--sheet)" />
      <path d="M15 10V34m-4 -7l4 7l4 -7" />
      <path d="M42 0V22H38" {...broken} strokeWidth="1.1" />
      <path d="M6 22l-2 -3l-2 6l-2 -3" strokeWidth="1.1" />
    </>
  ),
  sequence: () => <PressureValve open={false} from="S" />,
  reducing: () => (
    <PressureValve open from="S">
      <path d="M38 30H42V44" {...broken} strokeWidth="1.1" />
    </PressureValve>
  ),
  check: () => (
    <>
      <path d="M14 0V7M14 20V26" />
      <Check x={14} y={12} />
    </>
  ),
  throttle: () => (
    <>
      <path d="M14 0V36" />
      <path d="M6 8Q14 18 6 28M22 8Q14 18 22 28" />
    </>
  ),
  flowControl: () => (
    <>
      <rect x="6" y="6" width="32" height="32" fill="var(--sheet)" />
      <path d="M22 0V44M15 13Q21 22 15 31M29 13Q23 22 29 31M9 36L36 9m-6 1l6 -1l-1 6" strokeWidth="1.3" />
    </>
  ),
  lineLoss: () => <path d="M6 0V26" strokeDasharray="7 4" strokeWidth="1.3" className="text-ink-2" />,
  filter: () => (
    <>
      <path d="M22 0V3M22 41V44" />
      <path d={diamond} fill="var(--sheet)" />
      <path d="M5 22H39" strokeDasharray="4 3" strokeWidth="1.3" />
    </>
  ),
  cooler: () => (
    <>
      <path d="M22 0V3M22 41V44" />
      <path d={diamond} fill="var(--sheet)" />
      <path d="M22 12V32M14 22H2m4 -3l-4 3l4 3M30 22H42m-4 -3l4 3l-4 3" strokeWidth="1.3" />
    </>
  ),
  accumulator: () => (
    <>
      <rect x="2" y="1" width="22" height="40" rx="11" fill="var(--sheet)" />
      <path d="M2 20H24M13 41V48" />
      <path d="M13 15l-4 -7h8z" strokeWidth="1.1" />
    </>
  ),
  directional: ({ centre = 0 }) => <SpoolValve centre={centre} proportional={false} />,
  proportional: ({ centre = 0 }) => <SpoolValve centre={centre} proportional />,
  pilotCheck: () => <Holding counter={false} />,
  counterbalance: () => <Holding counter />,
  shuttle: () => (
    <>
      <rect x="2" y="6" width="40" height="18" fill="var(--sheet)" />
      <circle cx="22" cy="15" r="5" />
      <path d="M6 28V24M38 28V24M22 0V6M10 9L16 15L10 21M34 9L28 15L34 21" strokeWidth="1.2" />
    </>
  ),
  cylinder: () => (
    <>
      <rect x="1" y="1" width="108" height="34" fill="var(--sheet)" />
      <path d="M36 1V35M42 1V35M42 15H132M42 21H132" />
      <path d="M12 35V36M100 35V36" />
    </>
  ),
  motor: (_figures, joined) => (
    <>
      <circle cx="22" cy="20" r="19" fill="var(--sheet)" />
      <path d="M12 44V36M32 44V36" />
      <path d="M15 38H29L22 27Z" fill="currentColor" stroke="none" />
      {joined("case") ? <path d="M41 20H46V44" strokeDasharray="7 4" strokeWidth="1.3" /> : null}
      <path d="M12 14a12 12 0 0 1 20 0m-6 -1l6 1l1 -6" strokeWidth="1.2" />
    </>
  ),
  consumer: () => (
    <>
      <rect x="2" y="2" width="40" height="24" fill="var(--sheet)" />
      <path d="M14 32V26M34 32V26M8 14l4 -6l5 12l5 -12l5 12l5 -12l4 6" strokeWidth="1.2" />
    </>
  ),
};

/** A symbol at its own origin, 0 0 to its width and height. */
export function CircuitSymbol({
  name,
  figures = {},
  joined = () => false,
}: {
  name: string;
  figures?: Record<string, number>;
  joined?: Joined;
}) {
  const size = symbolSizes[name];
  const draw = drawings[name];
  if (draw) return <g>{draw(figures, joined)}</g>;
  return size ? <rect width={size.width} height={size.height} fill="var(--sheet)" /> : null;
}
