import { Form, Link } from "react-router";
import type { Route } from "./+types/records";
import { formatNumber } from "@core";
import { guard } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { Button, CheckField, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { recordsPage } from "~/domain/readings/csv/export.server";
import { records as texts } from "./texts";

export const meta = () => [{ title: texts.recordsJuncteral }];

export const loader = guard("viewer", async ({ user }) => ({
  page: await recordsPage(),
  mayImport: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
}));

export default function Records({ loaderData: { page, mayImport, mayEdit } }: Route.ComponentProps) {
  const site = useSite();
  return (
    <>
      <PageHead
        title={
          page.readings > 0
            ? texts.readingsOnRecord(page.more ? texts.moreThan : "", formatNumber(page.readings, 0))
            : texts.theRecordIsEmpty
        }
      >
        {texts.readingsAreNeverChanged}
      </PageHead>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <div>
          <Section title={texts.bringReadingsIn}>
            <p className="py-2 text-ink-2">{texts.fromAnyCsvMap}</p>
            {mayImport ? (
              <Link to="/records/import" className="act">
                {texts.importReadings}
              </Link>
            ) : (
              <p className="text-sm text-ink-2">{texts.aTechnicianCanImport}</p>
            )}
          </Section>
          <Section title={texts.takeReadingsOut}>
            <Form method="get" action="/records/readings.csv" reloadDocument className="mt-3 grid grid-cols-2 gap-3">
              <div className="col-span-2">
                <SelectField
                  name="machine"
                  label={texts.machine}
                  options={[
                    { value: "", label: texts.theWholeFleet },
                    ...page.machines.map((m) => ({ value: m.id, label: m.name })),
                  ]}
                />
              </div>
              <TextField name="from" label={texts.from} type="date" />
              <TextField name="to" label={texts.to} type="date" />
              <div className="col-span-2">
                <CheckField name="superseded" label={texts.withSupersededReadings} />
              </div>
              <div className="col-span-2">
                <Button tone="plain">{texts.exportAsCsv}</Button>
              </div>
            </Form>
          </Section>
          <Section title={texts.samplesOfOil}>
            <p className="flex gap-5 py-2">
              <a href="/oil/samples.csv" className="way" download="samples.csv">
                {texts.exportAllSamplesAs}
              </a>
              {mayImport ? (
                <Link to="/oil/import" className="way">
                  {texts.importALaboratoryFile}
                </Link>
              ) : null}
            </p>
          </Section>
          <Section title={texts.theFleetAsOne}>
            <p className="py-2 text-ink-2">{texts.sitesMachinesHourMeters}</p>
            <p className="flex gap-5">
              <a href="/records/fleet.json" className="way" download="fleet.json">
                {texts.exportTheFleetFile}
              </a>
              {mayEdit ? (
                <Link to="/records/fleet" className="way">
                  {texts.importAFleetFile}
                </Link>
              ) : null}
            </p>
          </Section>
        </div>
        <div>
          {page.failed.length > 0 ? (
            <Section title={texts.couldNotBeAssessed} aside={texts.triedAgainByItself}>
              <ul className="text-sm">
                {page.failed.map((f) => (
                  <li key={f.to} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    <Link to={f.to} className="hover:underline">
                      {f.what}
                    </Link>
                    : {f.failure}{" "}
                    <span className="text-ink-2">
                      ({f.failures} {f.failures === 1 ? texts.time : texts.times}
                      {f.triedAt ? texts.last(momentText(f.triedAt, site)) : ""})
                    </span>
                  </li>
                ))}
              </ul>
            </Section>
          ) : null}
          <Section title={texts.correctedReadings}>
            {page.corrections.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.noneYet}</p>
            ) : (
              <ul className="text-sm">
                {page.corrections.map((c) => (
                  <li key={c.id} className="ruled py-1.5">
                    <Link to={`/points/${c.pointId}?view=table`} className="hover:underline">
                      {c.point}
                    </Link>
                    : <s>{c.entered}</s>, {c.why}{" "}
                    <span className="text-ink-2">
                      ({c.by}, {c.at ? momentText(c.at.getTime(), site) : ""})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          <Section title={texts.imports}>
            {page.done.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.noneYet}</p>
            ) : (
              <ul className="text-sm">
                {page.done.map((i) => (
                  <li key={i.id} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    {texts.added(i.fileName, i.added)}{" "}
                    <span className="text-ink-2">
                      ({i.by}, {i.doneAt ? momentText(i.doneAt.getTime(), site) : ""})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
          <Section title={texts.changesToTheFleet}>
            {page.edits.length === 0 ? (
              <p className="py-2 text-ink-2">{texts.noneYet}</p>
            ) : (
              <ul className="text-sm">
                {page.edits.map((e) => (
                  <li key={e.id} className="ruled py-1.5 [overflow-wrap:anywhere]">
                    {e.what}{" "}
                    <span className="text-ink-2">
                      ({e.by}, {momentText(e.at.getTime(), site)})
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Section>
        </div>
      </div>
    </>
  );
}
