/** Somebody for a test: an engineer of that name, who is no person of the database. */
import type { Actor } from "./actor";

export const actorNamed = (name: string): Actor => ({ id: null, name, role: "engineer" });
