import { expect, test } from "@jest/globals";
import { draftCircuit } from "./draft";
import { filedCircuit, netlistOfFile } from "./file";
import { steadyState } from "./steady";

const { netlist } = draftCircuit({
  workingPressure: 200,
  components: ["axialPistonPump", "reliefValve", "proportionalValve", "cylinder", "filter"].map((kind, i) => ({
    id: `id-${i}`,
    kind,
    name: `Part ${i}`,
    displacement: 45,
    speed: 1450,
    points: [],
  })),
});
const nameOf = (id: string) => id.replace("id-", "Part ");

test("through a file and back it is the same circuit, under the other database's ids", () => {
  const file = filedCircuit(netlist, "R. Oduya", nameOf);
  const back = netlistOfFile(JSON.parse(JSON.stringify(file)) as typeof file, (name) => name.replace("Part ", "new-"));
  expect(back.elements.map((e) => [e.kind, e.name, e.data])).toEqual(
    netlist.elements.map((e) => [e.kind, e.name, e.data]),
  );
  expect(back.elements.filter((e) => e.componentId).map((e) => e.id)).toEqual([
    "new-0",
    "new-1",
    "new-2",
    "new-3",
    "new-4",
  ]);
  const [here, there] = [steadyState(netlist), steadyState(back)];
  if (!here.ok || !there.ok) throw new Error("not solved");
  expect(there.pressure({ element: "new-0", port: "out" })).toBeCloseTo(
    here.pressure({ element: "id-0", port: "out" })!,
    6,
  );
  expect(filedCircuit(back, "R. Oduya", (id) => id.replace("new-", "Part "))).toEqual(file);
});

test("an element whose component is gone stands for none", () => {
  const file = filedCircuit(netlist, "", () => undefined);
  expect(netlistOfFile(file, () => "x").elements.every((e) => e.componentId === null)).toBe(true);
});
