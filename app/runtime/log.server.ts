import pino from "pino";
import { config } from "./config.server";

/** Structured log on standard error, so that standard output stays for people. */
export const log = pino({ level: config.logLevel }, pino.destination(2));
