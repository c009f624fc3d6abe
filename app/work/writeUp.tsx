/** The record of work that is done: written up, signed, checked, added to. */
import { Form, useNavigation } from "react-router";
import type { InterventionPage } from "~/domain/bookings/index.server";
import { Button, CheckField, FormProblemsProvider, TextArea, TextField } from "~/ui/form";
import { Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";

type Problems = Record<string, string> | undefined;

/** What is written up, as fields of whichever form they stand in; what steps hold already stands in them. */
export function WriteUpFields({ page }: { page: InterventionPage }) {
  const { work } = page;
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <TextArea name="parts" label="Parts and serials used" defaultValue={work.parts} maxLength={1000} />
      <TextArea
        name="settingsLeft"
        label="Settings as left"
        defaultValue={work.settingsLeft || page.fromSteps.settingsLeft}
        maxLength={1000}
      />
      <TextArea
        name="openPoints"
        label={work.doneAt ? "What stays open" : "How it stands, what stays open"}
        defaultValue={work.openPoints}
        maxLength={1000}
      />
      <div>
        <TextField name="people" label="People" defaultValue={work.people} maxLength={300} />
        <div className="mt-3">
          <CheckField name="interim" label="A stop-gap: its cause stays open" defaultChecked={work.interim} />
        </div>
        <TextField name="lookAgainOn" label="Look again on" type="date" defaultValue={work.lookAgainOn ?? ""} />
      </div>
    </div>
  );
}

/** Keep what is written up, and say that it was kept. */
export function KeepWriteUp({ kept }: { kept: boolean }) {
  // said when the page has what was kept, too: what is pressed next builds on it
  const settled = useNavigation().state === "idle";
  return (
    <div className="mt-3">
      <Button name="intent" value="writeUp" tone="plain">
        Keep it
      </Button>
      <span role="status" className="ml-3 text-sea">
        {kept && settled ? "Kept." : ""}
      </span>
    </div>
  );
}

/** The write-up of work that is done. */
export function WriteUp({ page, problems, kept }: { page: InterventionPage; problems: Problems; kept: boolean }) {
  return (
    <Section title="For the record">
      <Form method="post" noValidate className="mt-2">
        <FormProblemsProvider problems={problems} focus={false}>
          <input type="hidden" name="version" value={page.work.version} />
          <WriteUpFields page={page} />
          <KeepWriteUp kept={kept} />
        </FormProblemsProvider>
      </Form>
    </Section>
  );
}

/** What is still altered on the machine; an engineer accepts each by name, or it is put back. */
function AlteredList({ altered, mayAccept }: { altered: InterventionPage["altered"]; mayAccept: boolean }) {
  const site = useSite();
  return (
    <Form method="post" className="mb-3">
      <h3>Still altered on the machine</h3>
      <ul>
        {altered.map((a) => (
          <li key={a.id} className="ruled flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
            <span className="min-w-0">{a.what}</span>
            {a.acceptedAt !== null ? (
              <span className="text-sm text-ink-2">
                <>
                  accepted by {a.acceptedBy}, {momentText(a.acceptedAt, site)}
                </>
              </span>
            ) : mayAccept ? (
              <span>
                <input type="hidden" name="intent" value="accept" />
                <Button name="changeId" value={a.id} tone="plain" aria-label={`Accept that it stays: ${a.what}`}>
                  Accept that it stays
                </Button>
              </span>
            ) : null}
          </li>
        ))}
      </ul>
    </Form>
  );
}

export function Signing({
  page,
  problems,
  maySign,
  submission,
  me,
}: {
  page: InterventionPage;
  problems: Problems;
  maySign: boolean;
  submission: string;
  me: string;
}) {
  const site = useSite();
  const { work, against, altered, twoSignatures, proven } = page;
  if (work.signedAt)
    return (
      <Section title="Signed">
        <p className="py-2">
          <>
            Signed by {<strong>{work.signedBy}</strong>}, {momentText(work.signedAt.getTime(), site)}
            {work.unprovenBecause ? `, not proven: ${work.unprovenBecause}` : ", proven by a reading"}.{" "}
            {work.checkedAt
              ? `Checked by ${work.checkedBy}, ${momentText(work.checkedAt.getTime(), site)}.`
              : twoSignatures
                ? "A second person is still to check it."
                : ""}
          </>
        </p>
        <FormProblemsProvider problems={problems}>
          {!work.checkedAt && twoSignatures && work.signedById !== me ? (
            <Form method="post" className="mb-3">
              <Button name="intent" value="check">
                Checked: sign as the second person
              </Button>
            </Form>
          ) : null}
          {work.interim && !work.lookedAgainAt ? (
            <Form method="post" className="mb-4 flex flex-wrap items-end gap-4">
              <TextField
                name="lookAgainOn"
                label="Looked at: it holds, look again on"
                type="date"
                defaultValue={work.lookAgainOn ?? ""}
              />
              <CheckField name="cured" label="its cause is dealt with" />
              <Button name="intent" value="looked" tone="plain">
                Keep it
              </Button>
            </Form>
          ) : null}
          <Form method="post" noValidate>
            <input type="hidden" name="submission" value={submission} />
            <TextArea name="addendum" label="An addition to the record" maxLength={2000} />
            <div className="mt-2">
              <Button name="intent" value="addendum" tone="plain">
                Add it
              </Button>
            </div>
          </Form>
        </FormProblemsProvider>
      </Section>
    );
  return (
    <Section title="Sign the record">
      {against.length > 0 ? (
        <ul className="list-disc py-2 pl-5">
          {against.map((a) => (
            <li key={a}>{a}.</li>
          ))}
        </ul>
      ) : null}
      {altered.length > 0 ? <AlteredList altered={altered} mayAccept={maySign} /> : null}
      {maySign ? (
        <Form method="post" noValidate className="mt-2">
          <FormProblemsProvider problems={problems}>
            <input type="hidden" name="version" value={work.version} />
            {proven === true ? null : (
              <TextArea
                name="unprovenBecause"
                label={
                  proven === null
                    ? "No reading since proves it. Why it is signed all the same"
                    : "The readings since do not prove it. Why it is signed all the same"
                }
                maxLength={500}
              />
            )}
            <p className="my-2 text-sm text-ink-2">
              A signed record is locked: what comes later is an addition to it. Signed as you, with the time.
            </p>
            <Button name="intent" value="sign" disabled={against.length > 0}>
              Sign it
            </Button>
          </FormProblemsProvider>
        </Form>
      ) : (
        <p className="py-2 text-ink-2">An engineer signs it.</p>
      )}
    </Section>
  );
}
