/** A circuit as a strip, from the reservoir to what moves, in the graphic symbols of ISO 1219-1, with a pin where one stands. */
import type { ComponentKind } from "@core";

interface Part {
  id: string;
  name: string;
  kind: ComponentKind;
}

const STEP = 104;
const LINE = 44;
const MOST = 8;

function Symbol({ kind, x }: { kind: ComponentKind; x: number }) {
  const box = <rect x={x - 17} y={LINE - 17} width="34" height="34" />;
  switch (kind) {
    case "axialPistonPump":
    case "closedLoopPump":
    case "gearPump":
      return (
        <>
          <circle cx={x} cy={LINE} r="18" />
          <path d={`M${x + 18} ${LINE}l-9-6v12z`} fill="currentColor" stroke="none" />
          {kind !== "gearPump" ? (
            <path d={`M${x - 20} ${LINE + 22}L${x + 20} ${LINE - 22}m-7 1l7-1 0 7`} strokeWidth="1.2" />
          ) : null}
        </>
      );
    case "pistonMotor":
      return (
        <>
          <circle cx={x} cy={LINE} r="18" />
          <path d={`M${x - 18} ${LINE}l9-6v12z`} fill="currentColor" stroke="none" />
        </>
      );
    case "reliefValve":
    case "unloaderValve":
    case "reducingValve":
    case "flushingValve":
      return (
        <>
          {box}
          <path d={`M${x} ${LINE + 11}v-22m-4 5l4-5 4 5`} />
          <path d={`M${x + 17} ${LINE}l4-5 4 10 4-10`} strokeWidth="1.1" />
        </>
      );
    case "filter":
      return (
        <>
          <path d={`M${x} ${LINE - 21}l21 21-21 21-21-21z`} />
          <path d={`M${x} ${LINE - 21}v42`} strokeDasharray="3 3" />
        </>
      );
    case "directionalValve":
    case "proportionalValve":
      return (
        <>
          <rect x={x - 32} y={LINE - 15} width="32" height="30" />
          <rect x={x} y={LINE - 15} width="32" height="30" />
          <path
            d={`M${x - 26} ${LINE + 10}L${x - 8} ${LINE - 10}M${x + 9} ${LINE - 15}v30M${x + 22} ${LINE - 15}v30`}
          />
          {kind === "proportionalValve" ? (
            <path d={`M${x - 32} ${LINE - 19}h64M${x - 32} ${LINE + 19}h64`} strokeWidth="1" />
          ) : null}
        </>
      );
    case "loadHoldingValve":
      return (
        <>
          {box}
          <circle cx={x} cy={LINE - 2} r="6" />
          <path d={`M${x - 8} ${LINE - 8}l8 8 8-8`} />
        </>
      );
    case "cylinder":
      return (
        <>
          <rect x={x - 34} y={LINE - 12} width="60" height="24" />
          <path d={`M${x - 12} ${LINE - 12}v24M${x - 12} ${LINE}h58`} />
        </>
      );
    case "accumulator":
      return (
        <>
          <rect x={x - 11} y={LINE - 20} width="22" height="40" rx="11" />
          <path d={`M${x - 11} ${LINE}h22`} />
        </>
      );
    default:
      return <path d={`M${x - 18} ${LINE - 12}v26h36v-26`} />;
  }
}

export function CircuitStrip({ parts, here, label }: { parts: readonly Part[]; here: string; label: string }) {
  const at = Math.max(
    0,
    parts.findIndex((p) => p.id === here),
  );
  const from = Math.max(0, Math.min(at - Math.floor(MOST / 2), parts.length - MOST));
  const shown = parts.slice(from, from + MOST);
  const width = 70 + shown.length * STEP;
  /** The circuit names its own reservoir: it is not drawn twice. */
  const reservoir = shown[0]?.kind === "other" && from === 0;
  const place = (i: number) => (reservoir ? 56 : 96) + i * STEP;
  return (
    <svg
      viewBox={`0 0 ${width} 104`}
      className="h-[104px] w-full text-ink"
      preserveAspectRatio="xMinYMid meet"
      role="img"
      aria-label={`${label}: ${parts[at]?.name ?? "this part"}, place ${at + 1} of ${parts.length} in the circuit`}
      fill="var(--sheet)"
      stroke="currentColor"
      strokeWidth="1.5"
    >
      <path
        d={reservoir ? `M30 ${LINE}H${width - 20}` : `M14 ${LINE - 4}v26h32v-26M30 ${LINE}v14M30 ${LINE}H${width - 20}`}
        fill="none"
      />
      {shown.map((p, i) => (
        <g key={p.id}>
          <Symbol kind={p.kind} x={place(i)} />
          <text
            x={place(i)}
            y={84}
            textAnchor="middle"
            fontSize="12.5"
            stroke="none"
            fill={p.id === here ? "var(--ink)" : "var(--ink-2)"}
            fontWeight={p.id === here ? 650 : 400}
          >
            {p.name.length > 15 ? `${p.name.slice(0, 14)}…` : p.name}
          </text>
          {p.id === here ? (
            <>
              <circle cx={place(i)} cy={LINE - 32} r="6" fill="var(--sea)" stroke="none" />
              <path d={`M${place(i)} ${LINE - 32}v14`} stroke="var(--sea)" strokeWidth="2.4" />
              <text
                x={place(i)}
                y={101}
                textAnchor="middle"
                fontSize="12"
                fontWeight="650"
                stroke="none"
                fill="var(--sea)"
              >
                you are here
              </text>
            </>
          ) : null}
        </g>
      ))}
    </svg>
  );
}
