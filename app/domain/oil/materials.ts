/** Materials of a component as a person writes them. */
import { wearMetals, type Material, type WearMetalId } from "@core";

/** "iron: shaft; copper: slippers", one material a line or between semicolons. A text: what is wrong. */
export function parseMaterials(text: string): Material[] | string {
  const found: Material[] = [];
  for (const line of text
    .split(/[;\n]/)
    .map((l) => l.trim())
    .filter(Boolean)) {
    const [metal = "", part = ""] = line.split(":").map((p) => p.trim());
    const id = metal.toLowerCase();
    if (!wearMetals.includes(id as WearMetalId))
      return `“${metal.slice(0, 20)}” is not one of ${wearMetals.join(", ")}.`;
    found.push({ metal: id as WearMetalId, part: part || "part of it" });
  }
  return found;
}
