import { config } from "./config.server";

/** The present, epoch ms; frozen where JUNCTERAL_NOW says so. */
export function now(): number {
  return config.now ?? Date.now();
}
