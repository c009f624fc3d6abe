/** What a circuit puts on its sheet: its symbols with their room and their ports, which of them stand on their heads, and its joints. */
import { isNamed, styleOf, symbolSizes, type LineStyle, type SymbolSize } from "../drawing";
import { elementKinds } from "../kinds";
import { nodesOf, portKey, roleOf, type CircuitElement, type Netlist, type PortRef } from "../netlist";

/** Room for the texts beside a symbol, and for each point read there. */
const TEXT = 130;
export const GAP = 10;
const TITLE = 18;
const ROW = 38;

/** Kinds of one way, drawn from below upwards, that look as well from above. */
const UPRIGHT: ReadonlySet<string> = new Set(["throttle", "flowControl", "check", "sequence"]);

/** Reads nothing but the netlist. Reservoirs are drawn where lines end in them, so they are not among what is drawn once. */
export class Sheet {
  readonly drawn: readonly CircuitElement[];
  /** Ports that are joined, joint by joint, by "element/port". */
  readonly joints: readonly string[][];
  /** The reservoir whose texts are drawn; a circuit has one. */
  readonly tank: string | undefined;
  private readonly tanks: ReadonlySet<string>;
  private readonly byId: ReadonlyMap<string, CircuitElement>;
  private readonly refs = new Map<string, PortRef>();
  private readonly flipped: ReadonlySet<string>;

  constructor(private readonly netlist: Netlist) {
    this.byId = new Map(netlist.elements.map((e) => [e.id, e]));
    this.tanks = new Set(netlist.elements.filter((e) => e.kind === "tank").map((e) => e.id));
    this.tank = [...this.tanks][0];
    this.drawn = netlist.elements.filter((e) => !this.tanks.has(e.id));
    this.joints = nodesOf(netlist).ports;
    for (const line of netlist.lines) for (const end of [line.from, line.to]) this.refs.set(portKey(end), end);
    // what is drawn with its outlet upwards and leads to tank stands on its head: the reservoir is below
    const toTank = new Set(this.joints.filter((keys) => this.reachesTank(keys)).flat());
    this.flipped = new Set(
      this.drawn
        .filter((e) => UPRIGHT.has(e.kind) && toTank.has(`${e.id}/out`) && !toTank.has(`${e.id}/in`))
        .map((e) => e.id),
    );
  }

  /** A port that a line leads to; undefined: none does. */
  ref(key: string): PortRef | undefined {
    return this.refs.get(key);
  }

  reachesTank(keys: readonly string[]): boolean {
    return keys.some((key) => this.tanks.has(this.refs.get(key)!.element));
  }

  /** Of a joint what is no reservoir. */
  endsOf(keys: readonly string[]): PortRef[] {
    return keys.map((key) => this.refs.get(key)!).filter((ref) => !this.tanks.has(ref.element));
  }

  isFlipped(id: string): boolean {
    return this.flipped.has(id);
  }

  sizeOf(id: string): SymbolSize {
    return symbolSizes[elementKinds[this.byId.get(id)!.kind].symbol]!;
  }

  widthOf(id: string): number {
    return this.sizeOf(id).width + (this.isNamed(id) ? GAP + TEXT : 0);
  }

  heightOf(id: string): number {
    return Math.max(this.sizeOf(id).height, this.isNamed(id) ? this.textHeight(id) : 0);
  }

  /** Room of a reservoir, with its texts or without. */
  tankSize(withText: boolean): { width: number; height: number } {
    const { width, height } = symbolSizes.tank!;
    return withText ? { width: width + GAP + TEXT, height: this.textHeight(this.tank!) } : { width, height };
  }

  hasGauges(id: string): boolean {
    return this.gaugesOf(id) > 0;
  }

  /** Where a port sits on its symbol, and whether on top. */
  port(ref: PortRef): { x: number; up: boolean } {
    const at = this.sizeOf(ref.element).ports[ref.port] ?? { x: 0, up: true };
    return this.flipped.has(ref.element) ? { ...at, up: !at.up } : at;
  }

  isSuction(ref: PortRef): boolean {
    return roleOf(this.netlist, ref) === "suction";
  }

  isPilot(key: string): boolean {
    return roleOf(this.netlist, this.refs.get(key)!) === "pilot";
  }

  /** How a line between these ports is drawn. */
  styleOf(keys: readonly string[]): LineStyle {
    const roles = keys.map((key) => this.refs.get(key)).map((ref) => ref && roleOf(this.netlist, ref));
    return styleOf(roles.filter((role) => role !== undefined));
  }

  private isNamed(id: string): boolean {
    return isNamed(this.byId.get(id)!, this.netlist.gauges);
  }

  private gaugesOf(id: string): number {
    return this.netlist.gauges.filter((g) => g.element === id).length;
  }

  private textHeight(id: string): number {
    return TITLE + this.gaugesOf(id) * ROW;
  }
}
