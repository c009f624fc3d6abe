/** The forms of a case: the next test, any other result, closing. */
import { Form, Link } from "react-router";
import type { CasePage } from "~/domain/isolation/index.server";
import { Button, fieldClass, FormProblemsProvider, SelectField, TextArea } from "~/ui/form";
import { Empty, Section } from "~/ui/page";
import { momentText, useSite } from "~/ui/site";
import { TestCard, TestCost } from "./testCard";

/** Guided tests that were made meanwhile: what they showed is one press away. */
export function Guided({ page, submission }: { page: CasePage; submission: string }) {
  const site = useSite();
  if (page.guided.length === 0) return null;
  return (
    <Section title="Made in Tests since then">
      <ul className="text-sm">
        {page.guided.map((g) => (
          <li key={g.test} className="ruled flex items-start justify-between gap-3 py-2">
            <span>
              <Link to={`/tests/records/${g.recordId}`} className="hover:underline">
                {g.text}
              </Link>
              <span className="block text-ink-2">
                {momentText(g.at, site)}, {g.by}
              </span>
            </span>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="intent" value="result" />
              <input type="hidden" name="submission" value={submission} />
              <input type="hidden" name="test" value={g.test} />
              <input type="hidden" name="result" value={g.result} />
              <button type="submit" className="way whitespace-nowrap" aria-label={`Take in: ${g.text}`}>
                Take it in
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </Section>
  );
}

export function NextTest({ page, submission, mayEnter }: { page: CasePage; submission: string; mayEnter: boolean }) {
  const { best, others, waiting } = page;
  return (
    <Section title={page.decided ? "If you want to be surer" : "The next best test"}>
      {best ? (
        <div className="pt-3">
          <TestCard test={best} submission={submission} mayEnter={mayEnter} />
        </div>
      ) : (
        <Empty>
          No test is left that could change what to do. Act on the likeliest, or close it with “none of these”.
        </Empty>
      )}
      {[
        { title: "Nearly as good", of: others },
        { title: "Not now", of: waiting },
      ].map(({ title, of }) =>
        of.length === 0 ? null : (
          <div key={title} className="mt-4">
            <h3 className="text-sm text-ink-2">{title}</h3>
            {of.map((t) => (
              <details key={t.id} className="ruled py-2">
                <summary className="cursor-pointer">
                  {t.text} <TestCost test={t} />
                  {t.outsideBook ? <span className="text-sm text-ochre"> not in most manufacturers' books</span> : null}
                  {t.heldBack && !t.outsideBook ? (
                    <span className="block text-xs text-ink-2">Waits while a safer test still tells enough.</span>
                  ) : null}
                </summary>
                <div className="pt-2">
                  <TestCard test={t} submission={submission} mayEnter={mayEnter} />
                </div>
              </details>
            ))}
          </div>
        ),
      )}
      {mayEnter ? <AnyResult page={page} submission={submission} /> : null}
    </Section>
  );
}

/** A result of a test that was made without being proposed. */
function AnyResult({ page, submission }: { page: CasePage; submission: string }) {
  return (
    <Form method="post" preventScrollReset className="mt-4 flex items-end gap-3">
      <input type="hidden" name="intent" value="result" />
      <input type="hidden" name="submission" value={submission} />
      <label className="min-w-0 grow text-sm text-ink-2">
        <span className="mb-0.5 block">Another test was made</span>
        <select name="any" className={`${fieldClass} pr-8`} defaultValue="">
          <option value="">which one, and what did it show?</option>
          {page.any.map((t) => (
            <optgroup key={t.id} label={t.text}>
              {t.results.map((r) => (
                <option key={r.value} value={`${t.id}|${r.value}`}>
                  {r.label}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </label>
      <Button tone="plain">Enter it</Button>
    </Form>
  );
}

export function Close({ page, problems }: { page: CasePage; problems: Record<string, string> | undefined }) {
  const likely = page.suspects.map((s) => s.id);
  const rest = page.every.filter((s) => !likely.includes(s.id));
  return (
    <Section title="What was found">
      <Form method="post" noValidate className="pt-2">
        <input type="hidden" name="intent" value="close" />
        <input type="hidden" name="version" value={page.version} />
        <FormProblemsProvider problems={problems}>
          <div className="grid gap-3">
            <SelectField
              name="found"
              label="It was"
              options={[
                { value: "", label: "not known yet" },
                ...page.suspects.map((s) => ({ value: s.id, label: s.text })),
                ...rest.map((s) => ({ value: s.id, label: s.text })),
                { value: "none", label: "None of these" },
              ]}
            />
            <TextArea name="findings" label="How it was found, what was done" maxLength={500} rows={2} />
            <p>
              <Button tone="plain">Close the isolation</Button>
            </p>
          </div>
        </FormProblemsProvider>
      </Form>
    </Section>
  );
}
