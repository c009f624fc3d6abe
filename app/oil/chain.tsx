/** The chain of what happened, what made it dirty, and which part sheds metal. */
import { Link } from "react-router";
import type { OilAssessment, OilFinding } from "@core";
import { dayText, useSite } from "~/ui/site";

const tones: Record<OilFinding["tone"], string> = { plain: "border-line-2", doubt: "border-ochre", bad: "border-verm" };

export function FindingList({ findings }: { findings: readonly OilFinding[] }) {
  const site = useSite();
  const when = (f: OilFinding) =>
    f.at === null
      ? "now"
      : f.until !== null && f.until !== f.at
        ? `${dayText(f.at, site)} – ${dayText(f.until, site)}`
        : dayText(f.at, site);
  return (
    <ol>
      {findings.map((f, i) => (
        <li key={i} className="ruled grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 py-2">
          <span className="text-sm text-ink-2">{when(f)}</span>
          <span className={`border-l-[3px] pl-2.5 ${tones[f.tone]}`}>
            {f.text}
            {f.pointId ? (
              <>
                {" "}
                <Link to={`/points/${f.pointId}`} className="way">
                  Its readings
                </Link>
              </>
            ) : null}
          </span>
        </li>
      ))}
    </ol>
  );
}

const percent = (share: number) => (share < 0.01 ? "less than 1 %" : `${Math.round(share * 100)}\u00a0%`);

/** A share as a figure with a bar under it, so that several are compared at a glance. */
function Share({ share }: { share: number }) {
  return (
    <span className="text-right text-sm">
      {percent(share)}
      <span aria-hidden="true" className="mt-0.5 block h-1 bg-line">
        <span className="block h-1 bg-sea" style={{ width: `${Math.max(2, share * 100)}%` }} />
      </span>
    </span>
  );
}

/** The likeliest cause in bold up to its colon; what speaks for it follows. */
function CauseText({ text, first }: { text: string; first: boolean }) {
  const [what = "", ...rest] = text.split(":");
  if (!first) return text;
  return (
    <>
      <strong className="font-semibold">{what}</strong>
      {rest.length ? `:${rest.join(":")}` : ""}
    </>
  );
}

export function CauseList({ causes }: { causes: OilAssessment["causes"] }) {
  const site = useSite();
  return (
    <ol>
      {causes.map((c, i) => (
        <li key={c.id + String(i)} className="ruled grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-3 py-2">
          <Share share={c.share} />
          <span className={i === 0 && c.id !== "unknown" ? "" : "text-ink-2"}>
            {c.at !== null ? `${dayText(c.at, site)}: ` : ""}
            <CauseText text={c.text} first={i === 0 && c.id !== "unknown"} />.{" "}
            <span className="text-sm text-ink-2">{c.tells}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}

export function SuspectList({ suspects }: { suspects: OilAssessment["suspects"] }) {
  return (
    <ol>
      {suspects.map((s) => (
        <li key={s.componentId} className="ruled grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-3 py-2">
          <Share share={s.share} />
          <span>
            <span className={s.share >= 0.4 ? "font-semibold" : ""}>{s.name}</span>
            {s.parts.length ? `: ${s.parts.join("; ")}` : ""}
            {s.agrees ? <span className="text-sm text-ink-2">. Its own reading got worse too</span> : null}
          </span>
        </li>
      ))}
    </ol>
  );
}
