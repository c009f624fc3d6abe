import { Form, Link, redirect } from "react-router";
import type { Route } from "./+types/campaign";
import { dayStart, lowerFirst } from "@core";
import { campaignPage, closeCampaign, settlePart } from "~/domain/bookings/index.server";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { dayText, InZone, useSite } from "~/ui/site";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.page.campaign.title ?? "Campaign"} · Juncteral` },
];

export const loader = guard("viewer", async ({ params, user }) => ({
  page: await campaignPage(idParam(params)),
  mayLook: mayAct(user.role, "technician"),
  mayEdit: mayAct(user.role, "engineer"),
}));

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  if (fields.intent === "close" && !mayAct(user.role, "engineer"))
    return refused({ problems: { form: "An engineer closes a campaign." }, because: "forbidden" });
  const done = fields.intent === "close" ? await closeCampaign(id, user) : await settlePart(id, fields, user);
  return done.ok ? redirect(`/work/campaigns/${id}`) : refused(done);
});

const words = {
  open: "not looked at",
  new: "new variant, nothing to do",
  old: "old variant, to be changed",
  done: "old variant, changed",
} as const;

export default function Campaign(props: Route.ComponentProps) {
  return (
    <InZone timeZone={props.loaderData.page.timeZone}>
      <CampaignPage {...props} />
    </InZone>
  );
}

function CampaignPage({ loaderData: { page, mayLook, mayEdit }, actionData }: Route.ComponentProps) {
  const site = useSite();
  const { campaign, parts } = page;
  const settled = parts.filter((p) => p.result === "new" || p.result === "done").length;
  const old = parts.filter((p) => p.result === "old").length;
  return (
    <div className="max-w-4xl">
      <PageHead
        crumbs={[{ label: "Work", to: "/work" }, { label: "Due by date", to: "/work/due" }, { label: campaign.title }]}
        title={`${campaign.title}: ${settled} of ${parts.length} settled${old > 0 ? `, ${old} to be changed` : ""}`}
      >
        <>
          Bulletin {campaign.bulletin}. {campaign.why}{" "}
          {campaign.dueOn ? `Done by ${dayText(dayStart(campaign.dueOn, page.timeZone), site)}. ` : ""}
          {campaign.closedAt ? `Closed by ${campaign.closedBy}. ` : ""}
          {<strong className="font-semibold text-ink">Marking:</strong>} {campaign.marking}
        </>
      </PageHead>
      <FormProblemsProvider problems={actionData?.problems}>
        <Section title="Parts">
          <ul>
            {parts.map((p) => (
              <li key={p.id} className="ruled py-2">
                <span className="flex flex-wrap justify-between gap-x-4">
                  <Link to={`/fleet/machines/${p.machineId}`} className="font-semibold hover:underline">
                    {p.machine}, {lowerFirst(p.component)}
                  </Link>
                  <span className={p.result === "old" ? "font-medium text-ochre" : "text-ink-2"}>
                    {words[p.result]}
                    {p.marking ? `; marked ${p.marking}` : ""}
                    {p.by && p.at ? `, ${p.by}, ${dayText(p.at, site)}` : ""}
                  </span>
                </span>
                {mayLook && !campaign.closedAt && (p.result === "open" || p.result === "old") ? (
                  <Form method="post" preventScrollReset className="mt-1 flex flex-wrap items-end gap-3">
                    <input type="hidden" name="part" value={p.id} />
                    <input type="hidden" name="version" value={p.version} />
                    <div className="w-56">
                      <SelectField
                        name={`result-${p.id}`}
                        label="Found"
                        defaultValue=""
                        options={[
                          { value: "", label: "choose" },
                          ...(["new", "old", "done"] as const).map((value) => ({ value, label: words[value] })),
                        ]}
                      />
                    </div>
                    <div className="w-40">
                      <TextField
                        name={`marking-${p.id}`}
                        label="Marking read"
                        defaultValue={p.marking}
                        maxLength={100}
                      />
                    </div>
                    <Button tone="plain">Keep</Button>
                    {p.result === "old" && mayEdit ? (
                      <Link
                        to={`/work/book?component=${p.componentId}&kind=replacement&from=campaign&of=${campaign.id}`}
                        className="way"
                      >
                        Book the change
                      </Link>
                    ) : null}
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        </Section>
        {mayEdit && !campaign.closedAt && settled === parts.length ? (
          <Form method="post">
            <Button name="intent" value="close">
              Close the campaign
            </Button>
          </Form>
        ) : null}
      </FormProblemsProvider>
    </div>
  );
}
