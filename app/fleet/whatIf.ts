/** What is asked of a circuit in a what-if, and how it is written into the address so that it can be shared. */
import { elementKinds, type Circumstances, type Netlist } from "@core";

export interface Asked {
  /** Oil temperature, °C; null: the one of the baselines. */
  oil: number | null;
  /** By element. */
  commands: Record<string, number>;
  data: Record<string, Record<string, number>>;
  faults: Record<string, Record<string, number>>;
}

export const nothingAsked: Asked = { oil: null, commands: {}, data: {}, faults: {} };
export const USUAL_OIL = 50;

/** Elements are told apart by their place in the netlist: an address stays short. */
export function askedOf(search: URLSearchParams, netlist: Netlist): Asked {
  const asked: Asked = { oil: null, commands: {}, data: {}, faults: {} };
  const parts = (name: string) =>
    search.getAll(name).flatMap((text) => {
      const [at, figure, value] = text.split("~");
      const element = netlist.elements[Number(at)];
      const number = Number(value);
      return element && figure && Number.isFinite(number) && value !== "" ? [{ element, figure, number }] : [];
    });
  const oil = Number(search.get("oil") ?? NaN);
  if (oil >= -20 && oil <= 110) asked.oil = oil;
  for (const { element, figure, number } of parts("set")) {
    const known = elementKinds[element.kind].data[figure];
    if (known && number >= known.least && number <= known.greatest) (asked.data[element.id] ??= {})[figure] = number;
  }
  for (const { element, figure, number } of parts("fault")) {
    const known = elementKinds[element.kind].faults[figure];
    if (known && number >= 0 && number <= known.greatest) (asked.faults[element.id] ??= {})[figure] = number;
  }
  for (const { element, number } of parts("command"))
    if (elementKinds[element.kind].commanded && Math.abs(number) <= 1) asked.commands[element.id] = number;
  return asked;
}

/** The address that askedOf reads. */
export function searchOf(asked: Asked, netlist: Netlist): URLSearchParams {
  const search = new URLSearchParams();
  const at = (id: string) => netlist.elements.findIndex((e) => e.id === id);
  const short = (value: number) => String(Number(value.toPrecision(5)));
  if (asked.oil !== null) search.set("oil", short(asked.oil));
  for (const [id, value] of Object.entries(asked.commands)) search.append("command", `${at(id)}~to~${short(value)}`);
  for (const [name, group] of [
    ["set", asked.data],
    ["fault", asked.faults],
  ] as const)
    for (const [id, figures] of Object.entries(group))
      for (const [figure, value] of Object.entries(figures)) search.append(name, `${at(id)}~${figure}~${short(value)}`);
  return search;
}

/** Data of the fit with what is asked laid over it. */
export function over(fitted: Circumstances["data"] = {}, asked: Circumstances["data"] = {}): Circumstances["data"] {
  const all = { ...fitted };
  for (const [id, figures] of Object.entries(asked)) all[id] = { ...all[id], ...figures };
  return all;
}
