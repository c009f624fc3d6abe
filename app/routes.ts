/** The map of addresses: read it to know the product. */
import { index, layout, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  route("sign-in", "account/signIn.tsx"),
  route("sign-out", "account/signOut.ts"),
  layout("shell/shell.tsx", [
    index("today/today.tsx"),
    route("fleet", "fleet/fleet.tsx", [route("machines/:id", "fleet/machine.tsx")]),
    route("fleet/new/:kind", "fleet/newRecord.tsx"),
    route("fleet/edit/:kind/:id", "fleet/editRecord.tsx"),
    route("points/:id", "points/point.tsx"),
    route("points/:id/limit", "points/limit.tsx"),
    route("points/:id/readings/:readingId", "points/correct.tsx"),
    route("instruments", "instruments/instruments.tsx"),
    route("instruments/new", "instruments/edit.tsx", { id: "instruments/new" }),
    route("instruments/:id", "instruments/instrument.tsx"),
    route("instruments/:id/edit", "instruments/edit.tsx"),
    route("instruments/fit/:id", "instruments/fit.tsx"),
    route("work", "work/work.tsx"),
    route("work/book", "work/book.tsx"),
    route("work/:id", "work/intervention.tsx"),
    route("bench", "bench/bench.tsx", [route(":calculator", "bench/calculator.tsx")]),
    route("records", "records/records.tsx"),
    route("records/import", "records/upload.tsx"),
    route("records/import/:id", "records/import.tsx"),
    route("records/fleet", "records/fleetFile.tsx"),
    route("account", "account/account.tsx"),
    route("*", "shell/missing.tsx"),
  ]),
  route("find", "shell/find.ts"),
  route("records/readings.csv", "records/readingsCsv.ts"),
  route("records/fleet.json", "records/fleetJson.ts"),
] satisfies RouteConfig;
