/** A manufacturer's bulletin as a campaign: which parts have the old variant, which are done. */
import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { campaignParts, campaigns, circuits, components, machines, sites } from "~/db/schema";
import { campaignResults, type CampaignResult } from "~/db/kinds";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, formIsOld, type Answer } from "~/domain/answer";
import { sentBefore } from "~/domain/sent.server";
import { notFound } from "~/platform/missing";
import { check, isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { campaignSchema } from "./form";

const MOST_PARTS = 500;

/** Begin a campaign over all parts of a kind in use at a site, those of one model where it is named. */
export async function beginCampaign(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(campaignSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const { kind, model, submission, dueOn, ...words } = checked.values;
  const before = await sentBefore(db(), campaigns, submission, { siteId: words.siteId });
  if (before) return before;
  return db().transaction(async (tx): Promise<Answer> => {
    const parts = await tx
      .select({ id: components.id })
      .from(components)
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(
        and(
          eq(machines.siteId, words.siteId),
          eq(components.kind, kind),
          model ? sql`lower(${components.model}) = lower(${model})` : undefined,
          isNull(components.retiredAt),
          isNull(circuits.retiredAt),
          isNull(machines.retiredAt),
        ),
      )
      .limit(MOST_PARTS + 1);
    if (parts.length === 0) return { ok: false, problems: { kind: "No part of this site is of that kind and model." } };
    if (parts.length > MOST_PARTS)
      return { ok: false, problems: { kind: `More than ${MOST_PARTS} parts: name the model.` } };
    const [row] = await tx
      .insert(campaigns)
      .values({ ...words, dueOn: dueOn || null, madeBy: actor.name, madeAt: new Date(now()), submission })
      .returning({ id: campaigns.id });
    await tx.insert(campaignParts).values(parts.map((p) => ({ campaignId: row!.id, componentId: p.id })));
    await audit(tx, actor, {
      what: `began the campaign ${words.title}`,
      recordId: row!.id,
      after: { parts: parts.length },
    });
    return { ok: true, id: row!.id };
  });
}

export async function campaignPage(id: string) {
  const [campaign] = await db()
    .select({ campaign: campaigns, site: sites.name, timeZone: sites.timeZone })
    .from(campaigns)
    .innerJoin(sites, eq(sites.id, campaigns.siteId))
    .where(eq(campaigns.id, id));
  if (!campaign) throw notFound("campaign");
  const parts = await db()
    .select({
      id: campaignParts.id,
      result: campaignParts.result,
      marking: campaignParts.marking,
      at: campaignParts.at,
      by: campaignParts.by,
      version: campaignParts.version,
      componentId: components.id,
      component: components.name,
      machine: machines.name,
      machineId: machines.id,
    })
    .from(campaignParts)
    .innerJoin(components, eq(components.id, campaignParts.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(campaignParts.campaignId, id))
    .orderBy(asc(machines.name), asc(components.name));
  return { ...campaign, parts: parts.map((p) => ({ ...p, at: p.at?.getTime() ?? null })) };
}

/** Campaigns that run, and how far each is. */
export async function campaignList() {
  return db()
    .select({
      id: campaigns.id,
      title: campaigns.title,
      bulletin: campaigns.bulletin,
      dueOn: campaigns.dueOn,
      closedAt: campaigns.closedAt,
      timeZone: sites.timeZone,
      parts: sql<number>`count(*)::int`,
      settled: sql<number>`(count(*) filter (where ${campaignParts.result} in ('new', 'done')))::int`,
    })
    .from(campaigns)
    .innerJoin(sites, eq(sites.id, campaigns.siteId))
    .innerJoin(campaignParts, eq(campaignParts.campaignId, campaigns.id))
    .groupBy(campaigns.id, sites.timeZone)
    .orderBy(sql`${campaigns.closedAt} nulls first`, asc(campaigns.dueOn))
    .limit(40);
}

const isResult = (text: string): text is CampaignResult => (campaignResults as readonly string[]).includes(text);

/** What its marking says of a part, or that it is done. */
export async function settlePart(campaignId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const partId = fields.part ?? "";
  if (!isUuid(partId)) return formIsOld();
  const result = fields[`result-${partId}`] ?? "";
  const marking = (fields[`marking-${partId}`] ?? "").trim().slice(0, 100);
  if (!isResult(result) || result === "open")
    return { ok: false, problems: { [`result-${partId}`]: "Choose what was found." } };
  if (marking.length < 1) return { ok: false, problems: { [`marking-${partId}`]: "Write the marking that you read." } };
  return db().transaction(async (tx): Promise<Answer> => {
    const [part] = await tx
      .select()
      .from(campaignParts)
      .where(and(eq(campaignParts.id, partId), eq(campaignParts.campaignId, campaignId)))
      .for("update");
    if (!part) throw notFound("part of the campaign");
    if (part.version !== Number(fields.version)) return changedMeanwhile("this part", part.by ?? undefined);
    await tx
      .update(campaignParts)
      .set({ result, marking, at: new Date(now()), by: actor.name, version: part.version + 1 })
      .where(eq(campaignParts.id, partId));
    await audit(tx, actor, {
      what: "campaign: a part",
      recordId: campaignId,
      before: { result: part.result, marking: part.marking },
      after: { componentId: part.componentId, result, marking },
    });
    return { ok: true, id: campaignId };
  });
}

/** Close a campaign: every part has the new variant, or was changed. */
export async function closeCampaign(id: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [campaign] = await tx.select().from(campaigns).where(eq(campaigns.id, id)).for("update");
    if (!campaign) throw notFound("campaign");
    if (campaign.closedAt) return { ok: true, id };
    const open = await tx
      .select({ id: campaignParts.id })
      .from(campaignParts)
      .where(and(eq(campaignParts.campaignId, id), inArray(campaignParts.result, ["open", "old"])));
    if (open.length > 0)
      return {
        ok: false,
        because: "conflict",
        problems: { form: `${open.length} part${open.length === 1 ? " is" : "s are"} not settled yet.` },
      };
    await tx
      .update(campaigns)
      .set({ closedAt: new Date(now()), closedBy: actor.name })
      .where(eq(campaigns.id, id));
    await audit(tx, actor, { what: `closed the campaign ${campaign.title}`, recordId: id });
    return { ok: true, id };
  });
}
