import { csvAnswer } from "~/platform/csv.server";
import { guard } from "~/platform/guard.server";
import { samplesQuery } from "~/domain/oil/index.server";

/** All samples as a CSV file. */
export const loader = guard("viewer", async ({ request }) => csvAnswer(request, samplesQuery(), "samples.csv"));
