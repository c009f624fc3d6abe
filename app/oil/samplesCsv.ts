import { createReadableStreamFromReadable } from "@react-router/node";
import { guard } from "~/platform/guard.server";
import { samplesCsv } from "./samplesCsv.server";

/** All samples as CSV, straight from the database as a stream. */
export const loader = guard("viewer", async () => new Response(createReadableStreamFromReadable(await samplesCsv()), { headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="samples.csv"' } }));
