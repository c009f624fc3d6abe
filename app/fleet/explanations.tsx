/** Single faults by how well they explain the gauges of a circuit as they stand, each to be tried in the model. */
import { useState } from "react";
import { faultsText, formatNumber, type Explanation, type Netlist, type PresentGauge } from "@core";
import { Section } from "~/ui/page";

/** Below this share a possibility is not worth a line. */
const WORTH_A_LINE = 0.05;
/** Fewer gauges part no two causes. */
const FEWEST_GAUGES = 3;

function Line(props: {
  e: Explanation;
  netlist: Netlist;
  names: ReadonlyMap<string, string>;
  onTry: (element: string, fault: string, severity: number) => void;
}) {
  const { e, netlist, names, onTry } = props;
  const [fault] = e.faults;
  const called = (ids: readonly string[]) => ids.map((id) => names.get(id)).join("; ");
  return (
    <li className="ruled py-1.5">
      <span className="flex items-baseline justify-between gap-3">
        <span className="font-semibold">
          {fault
            ? faultsText(netlist, e.faults)
            : e.unknown
              ? "Something that the model does not have, or several faults"
              : e.leaves.length === 0
                ? "Nothing is wrong"
                : "No fault of the model: a gauge is misread, or something outside moved it"}
        </span>
        <span className="whitespace-nowrap">{formatNumber(100 * e.share, 0)} %</span>
      </span>
      {e.explains.length > 0 ? (
        <span className="block text-xs text-ink-2">{`Explains ${called(e.explains)}.`}</span>
      ) : null}
      {e.leaves.length > 0 ? (
        <span className="block text-xs text-ink-2">{`Does not explain ${called(e.leaves)}.`}</span>
      ) : null}
      {fault ? (
        <button type="button" className="way text-sm" onClick={() => onTry(fault.element, fault.fault, fault.severity)}>
          Try it
        </button>
      ) : null}
    </li>
  );
}

export function Explanations(props: {
  netlist: Netlist;
  gauges: PresentGauge[];
  /** Does the model fit the circuit's baselines? Else it is not used to judge; null: there are none to fit it to. */
  fits: boolean | null;
  names: ReadonlyMap<string, string>;
  explanations: Explanation[] | null;
  onExplain: (gauges: PresentGauge[]) => void;
  onTry: (element: string, fault: string, severity: number) => void;
}) {
  const { gauges, fits, explanations, onExplain } = props;
  const [begun, setBegun] = useState(false);
  return (
    <Section title="What would explain the gauges" aside={begun && !explanations ? "computing …" : undefined}>
      {!fits || gauges.length < FEWEST_GAUGES ? (
        <p className="py-2 text-sm text-ink-2">
          {fits !== false
            ? `It takes ${FEWEST_GAUGES} points with a baseline to tell causes apart; this circuit has ${gauges.length}.`
            : "The model does not fit this circuit, so it is not asked for causes."}
        </p>
      ) : explanations?.length === 0 ? (
        <p className="py-2 text-sm text-ink-2">The model has no answer for these gauges.</p>
      ) : explanations ? (
        <ul className="text-sm" aria-live="polite">
          {explanations
            .filter((e, i) => i === 0 || e.share >= WORTH_A_LINE)
            .map((e) => (
              <Line key={`${e.faults[0]?.element}/${e.faults[0]?.fault}/${e.unknown}`} e={e} {...props} />
            ))}
        </ul>
      ) : (
        <p className="py-2">
          <button
            type="button"
            className="act"
            disabled={begun}
            onClick={() => {
              setBegun(true);
              onExplain(gauges);
            }}
          >
            Find the single fault that explains them
          </button>
        </p>
      )}
      {explanations && explanations.length > 0 ? (
        <p className="mt-2 text-xs text-ink-2">
          Every single fault of the model was tried against all gauges as they stand. It says what to test first, and
          proves nothing: confirm with a test before anything is opened or altered.
        </p>
      ) : null}
    </Section>
  );
}
