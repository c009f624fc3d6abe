/** A closed loop: what goes round, what is made up, and what each fault of it does. */
import { describe, expect, test } from "@jest/globals";
import { templateNetlist } from "./ofTemplate";
import type { Circumstances } from "./circumstances";
import { workCommands } from "./gauges";
import type { Netlist } from "./netlist";
import { steadyState, type SteadyState } from "./steady";

const netlist: Netlist = templateNetlist("hydrostatic");
const idOf = (name: string) => netlist.elements.find((e) => e.name === name)!.id;
const [loopPump, motor, charge, flush] = ["Loop pump", "Motor", "Charge pump", "Flushing valve"].map(idOf) as [
  string,
  string,
  string,
  string,
];
const chargeRelief = idOf("Charge relief valve");

function solve(c: Circumstances = { commands: workCommands(netlist) }): SteadyState {
  const state = steadyState(netlist, c);
  if (!state.ok) throw new Error(state.problem);
  return state;
}
const withFault = (element: string, fault: string, severity: number) =>
  solve({ commands: workCommands(netlist), faults: { [element]: { [fault]: severity } } });
const sideA = (s: SteadyState) => s.pressure({ element: motor, port: "A" })!;
const sideB = (s: SteadyState) => s.pressure({ element: motor, port: "B" })!;
const speed = (s: SteadyState) => s.inner(motor)[0]!;

describe("healthy", () => {
  const work = solve();
  test("the motor turns as fast as the pump's flow lets it, less what leaks across", () => {
    const { displacement: v, speed: n } = netlist.elements.find((e) => e.id === loopPump)!.data;
    const flow = (v! * n!) / 1000;
    expect((speed(work) * 500) / 1000).toBeGreaterThan(0.88 * flow);
    expect((speed(work) * 500) / 1000).toBeLessThan(flow);
  });
  test("one side carries the load, the other stands at the charge", () => {
    expect(sideA(work)).toBeGreaterThan(120);
    expect(sideB(work)).toBeGreaterThan(17);
    expect(sideB(work)).toBeLessThan(28);
  });
  test("what leaves the loop is what the charge pump feeds in", () => {
    const fed = work.flowOut({ element: charge, port: "out" }) + work.flowOut({ element: chargeRelief, port: "P" });
    const left = [
      work.flowOut({ element: loopPump, port: "case" }),
      work.flowOut({ element: motor, port: "case" }),
      work.flowOut({ element: flush, port: "T" }),
    ].reduce((a, b) => a + b, 0);
    expect(left).toBeGreaterThan(1);
    expect(fed).toBeCloseTo(left, 5);
  });
  test("the other way round the sides change places", () => {
    const back = solve({
      commands: { [loopPump]: -1 },
      data: { [motor]: { torque: -netlist.elements.find((e) => e.id === motor)!.data.torque! } },
    });
    expect(sideB(back)).toBeCloseTo(sideA(work), 3);
    expect(sideA(back)).toBeCloseTo(sideB(work), 3);
    expect(speed(back)).toBeCloseTo(-speed(work), 3);
  });
  test("without a load both sides stand at the charge at rest, and the charge goes over its relief valve", () => {
    const rest = solve({ commands: {}, data: { [motor]: { torque: 0 } } });
    expect(sideA(rest)).toBeCloseTo(sideB(rest), 0);
    expect(rest.pressure({ element: charge, port: "out" })!).toBeGreaterThan(24);
    expect(-rest.flowOut({ element: chargeRelief, port: "P" })).toBeGreaterThan(2);
  });
  test("a held load stands on side A and creeps only as fast as the loop leaks", () => {
    const held = solve({ commands: {} });
    expect(sideA(held)).toBeGreaterThan(120);
    expect(speed(held)).toBeLessThan(0);
    expect(-speed(held)).toBeLessThan(0.1 * speed(work));
  });
  test("a load that drives the motor is braked by the pump", () => {
    const torque = netlist.elements.find((e) => e.id === motor)!.data.torque!;
    const lowered = solve({ commands: workCommands(netlist), data: { [motor]: { torque: -0.5 * torque } } });
    expect(sideB(lowered)).toBeGreaterThan(sideA(lowered) + 40);
    expect(speed(lowered)).toBeGreaterThan(speed(work));
  });
});

describe("faults", () => {
  const work = solve();
  test("a worn pump slows the motor; its case drain rises with the leak to the case", () => {
    expect(speed(withFault(loopPump, "slip", 9))).toBeLessThan(0.95 * speed(work));
    const drain = (s: SteadyState) => s.flowOut({ element: loopPump, port: "case" });
    expect(drain(withFault(loopPump, "caseLeak", 3)) / drain(work)).toBeGreaterThan(3);
  });
  test("a servo that does not reach its stroke slows the motor by its share, at the same pressures", () => {
    const short = withFault(loopPump, "stuckShort", 0.3);
    expect(speed(short) / speed(work)).toBeGreaterThan(0.62);
    expect(speed(short) / speed(work)).toBeLessThan(0.72);
    expect(Math.abs(sideA(short) / sideA(work) - 1)).toBeLessThan(0.03);
  });
  test("a charge relief valve set low takes the charge pressure down, and the low side with it", () => {
    const low = withFault(chargeRelief, "setLow", 15);
    expect(low.pressure({ element: charge, port: "out" })!).toBeLessThan(13);
    expect(sideB(low)).toBeLessThan(sideB(work) - 8);
  });
  test("a flushing valve stuck in the middle lets nothing out: the charge goes over its relief valve", () => {
    const stuck = withFault(flush, "stuck", 1);
    expect(Math.abs(stuck.flowOut({ element: flush, port: "T" }))).toBeLessThan(1e-6);
    expect(-stuck.flowOut({ element: chargeRelief, port: "P" })).toBeGreaterThan(
      -work.flowOut({ element: chargeRelief, port: "P" }),
    );
  });
  test("a loop relief valve that leaks slows the motor", () => {
    expect(speed(withFault(idOf("Loop relief valve, A"), "seat", 0.05))).toBeLessThan(0.9 * speed(work));
  });
});

test("more than the loop relief valve holds overhauls the motor, at the valve's pressure", () => {
  const torque = netlist.elements.find((e) => e.id === motor)!.data.torque!;
  const stalled = solve({ commands: workCommands(netlist), data: { [motor]: { torque: 2 * torque } } });
  const valve = idOf("Loop relief valve, A");
  const crack = netlist.elements.find((e) => e.id === valve)!.data.crack!;
  expect(speed(stalled)).toBeLessThan(0);
  expect(-stalled.flowOut({ element: valve, port: "P" })).toBeGreaterThan(20);
  expect(sideA(stalled)).toBeGreaterThan(crack);
});
