/** Before beside after, with what the difference proves. */
import { Link } from "react-router";
import { formatNumber, quantityOf } from "@core";
import type { BeforeAfter } from "~/domain/record/index.server";
import { useShow } from "~/ui/site";

const verdictTone = {
  proven: "text-sea font-semibold",
  "better, not as new": "text-ochre font-semibold",
  "no change seen": "text-ochre font-semibold",
  worse: "text-verm font-semibold",
};

/** `condemned`: the point that condemned the part; of the others "no change" is nothing to mind. */
export function Compared({ rows, condemned }: { rows: readonly BeforeAfter[]; condemned: string | null }) {
  const show = useShow();
  const value = (r: BeforeAfter, side: BeforeAfter["before"]) =>
    side === null
      ? "not measured"
      : `${show(side.value, r.quantity, { unit: r.unit })}${r.fullFlow && r.reference ? ` (${formatNumber((side.value / r.fullFlow) * 100, 1)} %)` : ""}`;
  return (
    <div className="overflow-x-auto">
      <table className="w-full [&_td]:py-1.5 [&_td]:pr-4 [&_td]:align-top [&_th]:py-1.5 [&_th]:pr-4">
        <thead>
          <tr className="ruled">
            <th scope="col">point</th>
            <th scope="col" className="text-right">
              before
            </th>
            <th scope="col" className="text-right">
              after
            </th>
            <th scope="col">difference</th>
            <th scope="col">compared at</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.pointId} className="ruled">
              <td>
                <Link to={`/points/${r.pointId}`} className="hover:underline">
                  {r.name}
                </Link>
              </td>
              <td className="text-right whitespace-nowrap">{value(r, r.before)}</td>
              <td className="text-right font-semibold whitespace-nowrap">{value(r, r.after)}</td>
              <td>
                {r.proof ? (
                  <>
                    <span
                      className={
                        r.proof.verdict === "no change seen" && r.pointId !== condemned
                          ? "text-ink-2"
                          : verdictTone[r.proof.verdict]
                      }
                    >
                      {r.proof.verdict}
                    </span>
                    <span className="block text-sm text-ink-2">
                      {r.proof.difference > 0 ? "+" : ""}
                      {show(r.proof.difference, r.quantity, { unit: r.unit })} ±{" "}
                      {show(2 * r.proof.uncertainty, r.quantity, { unit: r.unit })}
                      {r.expected
                        ? `; expected ${show(r.expected.value, r.quantity, { unit: r.unit })} (${r.expected.basis})`
                        : ""}
                    </span>
                  </>
                ) : (
                  <span className="text-ink-2">not known yet</span>
                )}
              </td>
              <td className="text-sm text-ink-2">
                {`${r.reference ? show(r.reference.temperature, "oilTemperature") : ""}${
                  r.reference && quantityOf(r.quantity).correction === "leakage"
                    ? `, ${show(r.reference.pressure, "loadPressure")}`
                    : ""
                }` +
                  `${r.reference ? "; " : ""}median of ${r.before?.readings ?? 0} and ${r.after?.readings ?? 0} readings`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
