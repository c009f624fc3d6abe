/** What can be turned in a what-if: the oil, commands of valves, settings and loads, and faults with their severity. */
import { useId, useState } from "react";
import { elementKinds, formatNumber, readerFigure, type Circumstances, type Netlist } from "@core";
import { fieldClass } from "~/ui/form";
import { useShow, useSite } from "~/ui/site";
import { USUAL_OIL, type Asked } from "./whatIf";

function Slider(props: {
  label: string;
  shown: string;
  value: number;
  least: number;
  greatest: number;
  step: number;
  tone?: string;
  onChange: (value: number) => void;
  onRemove?: () => void;
}) {
  const id = useId();
  return (
    <div className="ruled py-2">
      <div className="flex items-baseline justify-between gap-3">
        <label htmlFor={id}>{props.label}</label>
        <output htmlFor={id} className={`text-right font-semibold ${props.tone ?? ""}`}>
          {props.shown}
        </output>
      </div>
      <div className="flex items-center gap-3">
        <input
          id={id}
          type="range"
          min={props.least}
          max={props.greatest}
          step={props.step}
          value={props.value}
          aria-valuetext={props.shown}
          onChange={(e) => props.onChange(Number(e.target.value))}
          className="h-6 w-full min-w-0 accent-[var(--sea)] max-lg:h-11"
        />
        {props.onRemove ? (
          <button
            type="button"
            className="way text-sm whitespace-nowrap"
            onClick={props.onRemove}
            aria-label={`Take out: ${props.label}`}
          >
            Take out
          </button>
        ) : null}
      </div>
    </div>
  );
}

/** Severities run with the square of the slider: small ones can be set finely. */
const STEPS = 100;

export function WhatIfPanel(props: {
  netlist: Netlist;
  fitted: NonNullable<Circumstances["data"]>;
  commands: Record<string, number>;
  asked: Asked;
  onAsk: (asked: Asked) => void;
}) {
  const { netlist, fitted, commands, asked, onAsk } = props;
  const { units } = useSite();
  const show = useShow();
  const [chosen, setChosen] = useState("");
  const choose = useId();
  const present = (id: string, figure: string) => {
    const e = netlist.elements.find((x) => x.id === id)!;
    return fitted[id]?.[figure] ?? e.data[figure] ?? elementKinds[e.kind].data[figure]!.usual;
  };
  const setFigure = (id: string, figure: string, value: number) =>
    onAsk({ ...asked, data: { ...asked.data, [id]: { ...asked.data[id], [figure]: value } } });
  const setFault = (id: string, fault: string, severity: number | null) => {
    const { [fault]: _gone, ...rest } = asked.faults[id] ?? {};
    onAsk({ ...asked, faults: { ...asked.faults, [id]: severity === null ? rest : { ...rest, [fault]: severity } } });
  };
  const settings = netlist.elements.flatMap((e) =>
    Object.entries(elementKinds[e.kind].data)
      .filter(([, f]) => f.turns)
      .map(([name, figure]) => ({ e, name, figure })),
  );
  const faulty = Object.entries(asked.faults).flatMap(([id, faults]) =>
    Object.entries(faults).map(([fault, severity]) => ({ id, fault, severity })),
  );
  return (
    <>
      {faulty.map(({ id, fault, severity }) => {
        const e = netlist.elements.find((x) => x.id === id)!;
        const known = elementKinds[e.kind].faults[fault]!;
        return (
          <Slider
            key={`${id}${fault}`}
            label={`${e.name}: ${known.label.toLowerCase()}`}
            shown={severity === 0 ? "healthy" : known.says(severity)}
            tone={severity > 0 ? "text-verm" : ""}
            least={0}
            greatest={STEPS}
            step={1}
            value={Math.round(STEPS * Math.sqrt(severity / known.greatest))}
            onChange={(t) => setFault(id, fault, Number((known.greatest * (t / STEPS) ** 2).toPrecision(3)))}
            onRemove={() => setFault(id, fault, null)}
          />
        );
      })}
      <div className="ruled py-2">
        <label htmlFor={choose}>Add a fault</label>
        <select
          id={choose}
          className={fieldClass}
          value={chosen}
          onChange={(event) => {
            const [id, fault] = event.target.value.split("~");
            setChosen("");
            if (!id || !fault) return;
            const kind = elementKinds[netlist.elements.find((x) => x.id === id)!.kind];
            setFault(id, fault, Number((kind.faults[fault]!.greatest * 0.09).toPrecision(2)));
          }}
        >
          <option value="">Choose a component and its fault …</option>
          {netlist.elements.map((e) => {
            const faults = Object.entries(elementKinds[e.kind].faults);
            return faults.length === 0 ? null : (
              <optgroup key={e.id} label={e.name}>
                {faults.map(([name, f]) => (
                  <option key={name} value={`${e.id}~${name}`} disabled={asked.faults[e.id]?.[name] !== undefined}>
                    {f.label}
                  </option>
                ))}
              </optgroup>
            );
          })}
        </select>
      </div>
      <Slider
        label="Oil temperature"
        shown={show(asked.oil ?? USUAL_OIL, "oilTemperature")}
        least={0}
        greatest={90}
        step={1}
        value={asked.oil ?? USUAL_OIL}
        onChange={(oil) => onAsk({ ...asked, oil })}
      />
      {netlist.elements
        .filter((e) => elementKinds[e.kind].commanded)
        .map((e) => {
          const at = asked.commands[e.id] ?? commands[e.id] ?? 0;
          return (
            <Slider
              key={e.id}
              label={`${e.name}, command at work`}
              shown={at === 0 ? "0 %, middle" : `${Math.round(at * 100)} % ${at > 0 ? "to A" : "to B"}`}
              least={-100}
              greatest={100}
              step={5}
              value={Math.round(at * 100)}
              onChange={(v) => onAsk({ ...asked, commands: { ...asked.commands, [e.id]: v / 100 } })}
            />
          );
        })}
      <details className="py-2">
        <summary className="text-sea">Settings and loads</summary>
        {settings.map(({ e, name, figure }) => {
          const usual = present(e.id, name);
          const value = asked.data[e.id]?.[name] ?? usual;
          const span = Math.max(Math.abs(usual), (figure.greatest - figure.least) / 1000);
          const least = Math.max(figure.least, Math.min(value, usual - span));
          const greatest = Math.min(figure.greatest, Math.max(value, usual + span));
          const shown = readerFigure(value, figure.unit, units);
          return (
            <Slider
              key={`${e.id}${name}`}
              label={`${e.name}: ${figure.label.toLowerCase()}`}
              shown={`${formatNumber(shown.value, Math.abs(shown.value) < 10 ? 2 : 0)} ${shown.symbol}`}
              tone={value === usual ? "" : "text-sea"}
              least={least}
              greatest={greatest}
              step={(greatest - least) / 200}
              value={value}
              onChange={(v) => setFigure(e.id, name, Number(v.toPrecision(4)))}
            />
          );
        })}
      </details>
    </>
  );
}
