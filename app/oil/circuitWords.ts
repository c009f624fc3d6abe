/** The findings of an oil in words. */
import { analytes, type ConditionState } from "@core";
import type { ShownOil } from "~/domain/oil/index.server";
import { counted } from "~/ui/counted";

/** Where no single finding has a heading of its own: what is below says it. Only a steady oil is normal. */
const byState: Record<ConditionState, string> = {
  alarm: "its oil needs attention now",
  alert: "its oil needs attention",
  drifting: "still clean, but drifting",
  steady: "its oil is normal",
  unproven: "not enough is known of its oil",
  unread: "not enough is known of its oil",
};

export function finding(machine: string, detail: ShownOil | null, samples: number): string {
  if (!detail || samples === 0) return `${machine}: no sample of its oil yet`;
  const worst = Math.max(...detail.over.map((o) => o ?? -Infinity));
  const parts: string[] = [];
  if (detail.filters.some((f) => f.past)) parts.push("oil bypasses its filter");
  if (worst > 0) parts.push(worst === Infinity ? "too dirty to count" : `${counted(worst, "number")} over target`);
  if (detail.metals.some((m) => m.passed.includes("own"))) parts.push("more metal than before");
  if (detail.water && !detail.water.below && detail.water.ppm >= 500) parts.push("water in the oil");
  if (detail.viscosityOff !== null && Math.abs(detail.viscosityOff) >= 0.1)
    parts.push(
      `${Math.round(Math.abs(detail.viscosityOff) * 100)} % too ${detail.viscosityOff < 0 ? "thin" : "thick"}`,
    );
  const climbs = detail.metals.filter((m) => m.climb);
  if (climbs.length > 0) parts.push(`${climbs.map((m) => analytes[m.id].short).join(" and ")} climbing`);
  return `${machine}: ${parts.length ? parts.join(", ") : byState[detail.state]}`;
}

export const saidText: Record<string, string> = {
  sample: "The sample is recorded.",
  element: "New element recorded; its readings start a new series.",
  settings: "Saved.",
  withdrawn: "Sample withdrawn: it stays on record but no longer counts.",
};
