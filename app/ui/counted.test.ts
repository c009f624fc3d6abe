import { counted } from "./counted";

test.each([
  [0, "point", "0 points"],
  [1, "point", "1 point"],
  [2, "hold point", "2 hold points"],
])("%d %s is “%s”", (n, thing, text) => expect(counted(n, thing)).toBe(text));
