/** Directional and proportional valves: four edges over the place of a spool, each with overlap and leakage. */
import { orifice, ramp } from "../laws";
import {
  COMMON,
  figure,
  percent,
  times,
  type ElementKind,
  type Fault,
  type Figure,
  type Port,
  type Stamp,
  warmth,
} from "./types";

const ports: Record<string, Port> = {
  P: { role: "pressure", side: "S", label: "P" },
  T: { role: "return", side: "S", label: "T" },
  A: { role: "work", side: "N", label: "A", optional: true },
  B: { role: "work", side: "N", label: "B", optional: true },
};

const data: Record<string, Figure> = {
  k: figure("Flow at 1 bar over one edge, fully open", "L/min", [0.2, 25, 3000], "the valve's data sheet"),
  leak: figure(
    "Leakage of one edge, shut",
    "L/min per bar",
    [0, 0.006, 1],
    "the valve's data sheet, null leakage over pressure",
  ),
  overlap: figure("Overlap, share of the spool's travel", "", [0, 0.1, 0.5], COMMON),
  ...warmth,
  /** 0: all shut, 1: all open, 2: pump to tank, 3: both consumers to tank. */
  centre: figure("Middle position: 0 shut, 1 open, 2 P to T, 3 A and B to T", "", [0, 0, 3], "the valve's symbol"),
};

const faults: Record<string, Fault> = {
  worn: { label: "Spool and bore worn", says: times, greatest: 60 },
  stuck: { label: "Spool stuck short of the command", says: percent, greatest: 1 },
  stuckOver: { label: "Spool stuck over to A", says: percent, greatest: 1 },
  noCommand: { label: "Coil or command dead", says: percent, greatest: 1 },
};

/** Open share of an edge for a spool pushed `over` towards it. */
const opened = (over: number, overlap: number) => ramp((over - overlap) / (1 - overlap), 1e-3).value;

function edges(s: Stamp): void {
  const alive = s.command * (1 - s.fault("stuck")) * (1 - s.fault("noCommand"));
  const spool = Math.max(-1, Math.min(1, alive + s.fault("stuckOver")));
  const overlap = s.d("overlap");
  const centre = Math.round(s.d("centre"));
  // what the middle position lets through goes as the spool leaves it
  const middle = Math.max(0, 1 - Math.abs(spool) / Math.max(0.05, overlap));
  const k = s.d("k");
  const leak = (s.d("leak") * (1 + s.fault("worn"))) / s.viscosity;
  const edge = (from: string, to: string, open: number) => {
    if (!s.connected(from) || !s.connected(to)) return;
    const dp = s.p(from) - s.p(to);
    const law = orifice(k * Math.min(1, open), dp);
    s.flow(from, to, law.q + leak * dp, law.slope + leak, -law.slope - leak);
  };
  const all = centre === 1 ? middle : 0;
  edge("P", "A", opened(spool, overlap) + all);
  edge("P", "B", opened(-spool, overlap) + all);
  edge("A", "T", opened(-spool, overlap) + (centre === 3 ? middle : all));
  edge("B", "T", opened(spool, overlap) + (centre === 3 ? middle : all));
  const across = centre === 2 ? orifice(k * middle, s.p("P") - s.p("T")) : null;
  if (across) s.flow("P", "T", across.q, across.slope, -across.slope);
}

export const directional: ElementKind = {
  label: "Directional valve",
  symbol: "directional",
  ports,
  data,
  faults,
  commanded: true,
  stamp: edges,
};

export const proportional: ElementKind = {
  ...directional,
  label: "Proportional valve",
  symbol: "proportional",
  data: { ...data, overlap: { ...data.overlap!, usual: 0.05 } },
};
