/** What is known of one hose or pipe, changed on the drawing board. */
import {
  lineFigures,
  parseNumber,
  stateLine,
  type CircuitChange,
  type LineData,
  type LineFigure,
  type Netlist,
} from "@core";
import { fieldClass } from "~/ui/form";
import { DraftInput } from "./draftInput";

const unknown = { rating: null, bore: null, length: null, fittedOn: "", tag: "" };

export function LineFields(props: {
  netlist: Netlist;
  line: string;
  data: LineData | null;
  now: number;
  onChange: (change: CircuitChange) => void;
}) {
  const { netlist, line, data, now, onChange } = props;
  const made = data?.made ?? "";
  const state = (change: Partial<LineData>) => {
    if (data) onChange(stateLine(netlist, line, { ...data, ...change }, now));
  };
  const figure = (name: LineFigure) => {
    const { label, unit } = lineFigures[name];
    return (
      <label key={name} className="block py-1 text-sm">
        {label}, {unit}
        <DraftInput
          inputMode="decimal"
          value={String(data?.[name] ?? "")}
          onCommit={(typed) => {
            const value = typed === "" ? null : parseNumber(typed);
            if (value !== null && Number.isNaN(value))
              onChange({ ok: false, problem: `${label}: “${typed.slice(0, 20)}” is not a number.` });
            else state({ [name]: value });
          }}
        />
      </label>
    );
  };
  return (
    <>
      <label className="block py-1 text-sm">
        Hose or pipe
        <select
          className={fieldClass}
          value={made}
          onChange={(event) => {
            const next = event.target.value as LineData["made"] | "";
            onChange(stateLine(netlist, line, next === "" ? null : { ...unknown, ...data, made: next }, now));
          }}
        >
          <option value="">not stated</option>
          <option value="hose">Hose</option>
          <option value="pipe">Pipe</option>
        </select>
      </label>
      {made === "" ? null : (
        <>
          {(Object.keys(lineFigures) as LineFigure[]).map(figure)}
          <label className="block py-1 text-sm">
            Fitted on
            <DraftInput type="date" value={data?.fittedOn ?? ""} onCommit={(fittedOn) => state({ fittedOn })} />
          </label>
          <label className="block py-1 text-sm">
            Tag
            <DraftInput maxLength={40} value={data?.tag ?? ""} onCommit={(tag) => state({ tag })} />
          </label>
        </>
      )}
    </>
  );
}
