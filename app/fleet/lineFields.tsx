/** What is known of one hose or pipe, changed on the drawing board. */
import { useState } from "react";
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

const unknown = { rating: null, bore: null, length: null, fittedOn: "", tag: "" };

export function LineFields(props: {
  netlist: Netlist;
  line: string;
  data: LineData | null;
  now: number;
  onChange: (change: CircuitChange) => void;
}) {
  const { netlist, line, data, now, onChange } = props;
  const [made, setMade] = useState<LineData["made"] | "">(data?.made ?? "");
  const state = (change: Partial<LineData>) => {
    if (made !== "") onChange(stateLine(netlist, line, { ...unknown, ...data, made, ...change }, now));
  };
  const figure = (name: LineFigure) => {
    const { label, unit } = lineFigures[name];
    return (
      <label key={name} className="block py-1 text-sm">
        {label}, {unit}
        <input
          className={fieldClass}
          inputMode="decimal"
          defaultValue={data?.[name] ?? ""}
          onBlur={(event) => {
            const typed = event.target.value.trim();
            const value = typed === "" ? null : parseNumber(typed);
            if (value === (data?.[name] ?? null)) return;
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
            setMade(next);
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
            <input
              type="date"
              className={fieldClass}
              defaultValue={data?.fittedOn ?? ""}
              onBlur={(event) => {
                if (event.target.value !== (data?.fittedOn ?? "")) state({ fittedOn: event.target.value });
              }}
            />
          </label>
          <label className="block py-1 text-sm">
            Tag
            <input
              className={fieldClass}
              maxLength={40}
              defaultValue={data?.tag ?? ""}
              onBlur={(event) => {
                const tag = event.target.value.trim();
                if (tag !== (data?.tag ?? "")) state({ tag });
              }}
            />
          </label>
        </>
      )}
    </>
  );
}
