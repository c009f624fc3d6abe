import { remarkSays } from "./remark";

test.each([
  ["Free water seen", ["freeWater"]],
  ["no free water", []],
  ["Sample milky, coarse particles at the bottom", ["freeWater", "dirt"]],
  ["Probe trüb, kein Schlamm", ["freeWater"]],
  ["slightly burnt smell; without metal flakes", ["burnt"]],
  ["bronze flakes on the patch", ["metal"]],
  ["as usual", []],
])("%s", (text, says) => expect(remarkSays(text)).toEqual(says));
