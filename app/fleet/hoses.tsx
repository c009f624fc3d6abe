/** Hoses and pipes of a circuit of which something is known, with what their data say against them. */
import { ageOf, formatNumber, lineRemarks, portKey, portsOf, type Netlist } from "@core";
import { figureText } from "~/ui/figureText";
import { useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";

export function Hoses({ netlist }: { netlist: Netlist }) {
  const { now, units } = useSite();
  const lines = netlist.lines.flatMap((l) => (l.data ? [{ ...l, data: l.data }] : []));
  if (lines.length === 0) return null;
  const labels = new Map(portsOf(netlist).map((p) => [portKey(p), p.label]));
  const remarks = new Map(lines.map((l) => [l.id, lineRemarks(netlist, l, now)]));
  const remarked = [...remarks.values()].filter((r) => r.length > 0).length;
  return (
    <details className="mt-1 text-sm" open={remarked > 0}>
      <summary className="text-sea">
        {`Hoses and pipes, ${lines.length}${remarked > 0 ? `: ${remarked} to look at` : ""}`}
      </summary>
      <ul>
        {lines.map(({ id, from, to, data }) => {
          const age = ageOf(data, now);
          return (
            <li key={id} className="ruled py-1">
              <span className="font-semibold">{data.tag || (data.made === "hose" ? "Hose" : "Pipe")}</span>{" "}
              {labels.get(portKey(from))} to {labels.get(portKey(to))}
              <span className="text-ink-2">
                {": "}
                {[
                  data.made,
                  ...(data.rating === null ? [] : [`rated ${figureText(data.rating, "bar", units)}`]),
                  ...(data.bore === null ? [] : [`${figureText(data.bore, "mm", units)} bore`]),
                  ...(data.length === null ? [] : [`${formatNumber(data.length, 2)} m`]),
                  ...(age === null ? [] : [`${formatNumber(age, 1)} years`]),
                ].join(", ")}
              </span>
              {remarks.get(id)!.map((parts, i) => (
                <span key={i} className="block text-ochre">
                  <Verdict parts={parts} />
                </span>
              ))}
            </li>
          );
        })}
      </ul>
    </details>
  );
}
