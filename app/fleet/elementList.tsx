/** What is in a circuit that is being drawn: names, figures, lines, each to be changed or taken out. */
import {
  changeElement,
  elementKindOf,
  elementKinds,
  parseNumber,
  portsOf,
  portKey,
  tieElement,
  type CircuitChange,
  type Netlist,
} from "@core";
import { Section } from "~/ui/page";
import { useSite } from "~/ui/site";
import { DraftInput } from "./draftInput";
import { LineFields } from "./lineFields";

export function ElementList(props: {
  netlist: Netlist;
  /** Components on record that are not drawn: a symbol may be one of them. */
  left: readonly { id: string; kind: string; name: string }[];
  onChange: (change: CircuitChange) => void;
  onRemove: (element: string) => void;
  onCut: (line: string) => void;
}) {
  const { netlist, left, onChange, onRemove, onCut } = props;
  const { now } = useSite();
  const labels = new Map(portsOf(netlist).map((p) => [portKey(p), p.label]));
  return (
    <>
      <Section title="Components" aside={`${netlist.elements.length}`} className="mt-4">
        {netlist.elements.map((e) => {
          const kind = elementKinds[e.kind];
          const figures = Object.entries(kind.data);
          const same = e.componentId === null ? left.filter((c) => elementKindOf(c) === e.kind) : [];
          return (
            <details key={e.id} className="ruled py-1">
              <summary className="min-h-8 py-1 max-lg:min-h-11">
                {e.name} <span className="text-sm text-ink-2">{kind.label.toLowerCase()}</span>
              </summary>
              <label className="block py-1 text-sm">
                Name
                <DraftInput
                  value={e.name}
                  maxLength={60}
                  onCommit={(name) => {
                    if (name) onChange(changeElement(netlist, e.id, { name }));
                  }}
                />
              </label>
              {figures.map(([name, f]) => (
                <label key={name} className="block py-1 text-sm">
                  {f.label}
                  {f.unit ? `, ${f.unit}` : ""}
                  <DraftInput
                    inputMode="decimal"
                    value={e.data[name] === undefined ? "" : String(Number(e.data[name].toPrecision(6)))}
                    placeholder={`${f.usual}, ${f.source}`}
                    onCommit={(typed) => {
                      const value = typed === "" ? null : parseNumber(typed);
                      onChange(
                        value !== null && Number.isNaN(value)
                          ? { ok: false, problem: `${f.label}: “${typed.slice(0, 20)}” is not a number.` }
                          : changeElement(netlist, e.id, { figure: { name, value } }),
                      );
                    }}
                  />
                </label>
              ))}
              {same.length > 0 ? (
                <p className="py-1 text-sm">
                  It is on record as{" "}
                  {same.map((c) => (
                    <button
                      key={c.id}
                      type="button"
                      className="way mr-3 max-lg:min-h-11"
                      onClick={() => onChange(tieElement(netlist, e.id, c))}
                    >
                      {c.name}
                    </button>
                  ))}
                </p>
              ) : null}
              <button type="button" className="way mb-2 text-sm" onClick={() => onRemove(e.id)}>
                {`Take ${e.name} out`}
              </button>
            </details>
          );
        })}
      </Section>
      <Section title="Lines" aside={`${netlist.lines.length}`} className="mt-4">
        <ul className="text-sm">
          {netlist.lines.map((l) => {
            const name = `${labels.get(portKey(l.from))} to ${labels.get(portKey(l.to))}`;
            return (
              <li key={l.id} className="ruled flex items-start justify-between gap-3 py-1">
                <details className="min-w-0 flex-1">
                  <summary className="max-lg:min-h-11">
                    {name}
                    {l.data ? <span className="text-ink-2"> {[l.data.made, l.data.tag].join(" ")}</span> : null}
                  </summary>
                  <LineFields netlist={netlist} line={l.id} data={l.data} now={now} onChange={onChange} />
                </details>
                <button
                  type="button"
                  className="way max-lg:min-h-11"
                  aria-label={`Cut the line from ${name}`}
                  onClick={() => onCut(l.id)}
                >
                  Cut
                </button>
              </li>
            );
          })}
        </ul>
      </Section>
    </>
  );
}
