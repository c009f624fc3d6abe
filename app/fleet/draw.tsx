import { useEffect, useId, useMemo, useState, type ReactNode } from "react";
import { Form, redirect, useFetcher, type ShouldRevalidateFunctionArgs } from "react-router";
import type { Route } from "./+types/draw";
import {
  addElement,
  elementKindIds,
  elementKinds,
  joinPorts,
  netlistProblems,
  placeComponent,
  portKey,
  portsOf,
  removeElement,
  removeLine,
  type CircuitChange,
  type Drawing,
  type ElementKindId,
  type Netlist,
  type PortRef,
} from "@core";
import { circuitPage, drawCircuit, previewOf } from "~/domain/circuits/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { CircuitDiagram } from "~/ui/circuit/diagram";
import { Button, CheckField, fieldClass, FormProblemsProvider, Notice } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { InZone } from "~/ui/site";
import { ElementList } from "./elementList";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Draw the circuit, ${loaderData?.machine ?? ""} · Juncteral` },
];

export const loader = guard("engineer", async ({ params }) => ({
  ...(await circuitPage(idParam(params))),
  circuitId: params.id!,
}));

export const action = guardAction("engineer", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  if (fields.intent === "preview") {
    const preview = await previewOf(id, fields.netlist ?? "");
    return preview.ok ? { drawing: preview.drawing } : refused(preview);
  }
  const done = await drawCircuit(id, fields, user);
  return done.ok ? redirect(`/fleet/circuits/${id}?kept`) : refused(done);
});

/** A preview changes nothing: what was loaded stays, above all the version that is drawn upon. */
export const shouldRevalidate = ({ formData, defaultShouldRevalidate }: ShouldRevalidateFunctionArgs) =>
  formData?.get("intent") === "preview" ? false : defaultShouldRevalidate;

/** What was drawn, step by step. */
interface History {
  past: Netlist[];
  present: Netlist;
  future: Netlist[];
}
const MOST_STEPS = 200;
const noPoints = new Map<string, never>();

function Choice(props: { label: string; value: string; onChoose: (value: string) => void; children: ReactNode }) {
  const id = useId();
  return (
    <div className="min-w-0 flex-1">
      <label htmlFor={id} className="text-sm">
        {props.label}
      </label>
      <select id={id} className={fieldClass} value={props.value} onChange={(e) => props.onChoose(e.target.value)}>
        {props.children}
      </select>
    </div>
  );
}

export default function Draw(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.timeZone}>
      <DrawScreen {...props} />
    </InZone>
  );
}

function DrawScreen({ loaderData: page, actionData }: Route.ComponentProps) {
  const { diagram } = page;
  const [history, setHistory] = useState<History>({ past: [], present: diagram.netlist, future: [] });
  const [said, setSaid] = useState("");
  const [kind, setKind] = useState<ElementKindId>("relief");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  /** The port that was pressed first in the diagram. */
  const [picked, setPicked] = useState("");
  const preview = useFetcher<{ drawing?: Drawing }>();
  // the one that this drawing began with, whatever is loaded meanwhile: else it would overwrite another's unseen
  const [version] = useState(diagram.version);
  const netlist = history.present;

  const keep = (next: Netlist) => {
    setSaid("");
    setHistory((h) => ({ past: [...h.past.slice(-MOST_STEPS), h.present], present: next, future: [] }));
  };
  const tryIt = (change: CircuitChange) => (change.ok ? keep(change.netlist) : setSaid(change.problem));
  const undo = () =>
    setHistory((h) =>
      h.past.length === 0
        ? h
        : { past: h.past.slice(0, -1), present: h.past.at(-1)!, future: [h.present, ...h.future] },
    );
  const redo = () =>
    setHistory((h) =>
      h.future.length === 0 ? h : { past: [...h.past, h.present], present: h.future[0]!, future: h.future.slice(1) },
    );

  // the drawing follows the last change, made where pages are made
  const text = useMemo(() => JSON.stringify({ ...netlist, gauges: [] }), [netlist]);
  const { submit } = preview;
  useEffect(() => {
    const timer = setTimeout(() => void submit({ intent: "preview", netlist: text }, { method: "post" }), 250);
    return () => clearTimeout(timer);
  }, [text, submit]);
  const drawing = preview.data?.drawing ?? diagram.drawing;
  // what was taken out since the last drawing is not in it any more
  const shown = useMemo(() => ({ ...netlist, gauges: [] }), [netlist]);

  const ports = portsOf(netlist);
  const refOf = (key: string): PortRef | undefined => ports.find((p) => portKey(p) === key);
  const drawn = new Set(netlist.elements.map((e) => e.componentId));
  const left = diagram.components.filter((c) => !drawn.has(c.id));
  const problems = netlistProblems(netlist);
  const join = (first: string, second: string) => {
    const [a, b] = [refOf(first), refOf(second)];
    if (!a || !b) setSaid("Choose two ports.");
    else tryIt(joinPorts(netlist, a, b));
  };
  const pickPort = (key: string) => {
    if (picked === "") return setPicked(key);
    if (picked !== key) join(picked, key);
    setPicked("");
  };
  const portOptions = (
    <>
      <option value="">Choose a port …</option>
      {netlist.elements.map((e) => (
        <optgroup key={e.id} label={e.name}>
          {ports
            .filter((p) => p.element === e.id)
            .map((p) => (
              <option key={portKey(p)} value={portKey(p)}>
                {p.label}
                {p.lines === 0 ? " (open)" : ""}
              </option>
            ))}
        </optgroup>
      ))}
    </>
  );
  return (
    <>
      <PageHead
        crumbs={[
          { label: page.area || "Fleet", to: "/fleet" },
          { label: page.machine, to: `/fleet/machines/${page.machineId}` },
          { label: page.name, to: `/fleet/circuits/${page.circuitId}` },
        ]}
        title={`Draw the circuit of ${page.machine}`}
      >
        Put components in and join their ports, here or by pressing two ports in the diagram; it lays itself out. An
        unfinished circuit can be kept.
      </PageHead>
      <FormProblemsProvider problems={actionData && "problems" in actionData ? actionData.problems : {}}>
        <div className="grid gap-x-7 lg:grid-cols-[minmax(0,1fr)_330px]">
          <div className="min-w-0">
            <CircuitDiagram
              netlist={shown}
              drawing={drawing}
              points={noPoints}
              pick={{
                from: picked,
                nameOf: (key) => ports.find((p) => portKey(p) === key)?.label ?? "",
                onPick: pickPort,
              }}
              label={`Circuit diagram of ${page.machine} as drawn so far`}
            />
            {problems.length > 0 ? (
              <Section title="Still open" aside={`${problems.length}`} className="mt-4">
                <ul className="py-2 text-sm">
                  {problems.slice(0, 12).map((p) => (
                    <li key={p.element + (p.port ?? p.message)} className={p.grave ? "text-verm" : "text-ink-2"}>
                      {p.message}
                    </li>
                  ))}
                </ul>
              </Section>
            ) : null}
          </div>
          <div className="min-w-0">
            <div className="mb-4 flex flex-wrap gap-x-5 gap-y-2">
              <Form method="post" className="contents">
                <input type="hidden" name="intent" value="keep" />
                <input type="hidden" name="version" value={version} />
                <input type="hidden" name="netlist" value={text} />
                <Button>Keep this circuit</Button>
                <CheckField
                  name="register"
                  label="Drawn parts that are not on record become components"
                  defaultChecked
                />
              </Form>
              <button
                type="button"
                className="way disabled:opacity-50"
                disabled={history.past.length === 0}
                onClick={undo}
              >
                Undo
              </button>
              <button
                type="button"
                className="way disabled:opacity-50"
                disabled={history.future.length === 0}
                onClick={redo}
              >
                Redo
              </button>
              {diagram.drawnBy ? (
                <Form method="post">
                  <input type="hidden" name="intent" value="propose" />
                  <input type="hidden" name="version" value={version} />
                  <button className="way">Back to the proposal</button>
                </Form>
              ) : null}
            </div>
            <div aria-live="polite">{said ? <Notice tone="ochre">{said}</Notice> : null}</div>
            <Section title="Put in">
              <div className="flex items-end gap-3 py-2">
                <Choice label="Component" value={kind} onChoose={(v) => setKind(v as ElementKindId)}>
                  {elementKindIds.map((id) => (
                    <option key={id} value={id}>
                      {elementKinds[id].label}
                    </option>
                  ))}
                </Choice>
                <button
                  type="button"
                  className="act"
                  onClick={() => tryIt(addElement(netlist, kind, "", `e${crypto.randomUUID().slice(0, 8)}`))}
                >
                  Put it in
                </button>
              </div>
              {left.map((c) => (
                <p key={c.id} className="py-1 text-sm">
                  {`On record and not drawn: ${c.name}.`}{" "}
                  <button type="button" className="way" onClick={() => tryIt(placeComponent(netlist, c))}>
                    {`Put ${c.name} in`}
                  </button>
                </p>
              ))}
            </Section>
            <Section title="Join two ports" className="mt-4">
              <div className="grid gap-2 py-2">
                <Choice label="From" value={from} onChoose={setFrom}>
                  {portOptions}
                </Choice>
                <Choice label="To" value={to} onChoose={setTo}>
                  {portOptions}
                </Choice>
                <button type="button" className="act justify-self-start" onClick={() => join(from, to)}>
                  Join them
                </button>
              </div>
            </Section>
            <ElementList
              netlist={netlist}
              left={left}
              onChange={tryIt}
              onRemove={(id) => keep(removeElement(netlist, id))}
              onCut={(id) => keep(removeLine(netlist, id))}
            />
          </div>
        </div>
      </FormProblemsProvider>
    </>
  );
}
