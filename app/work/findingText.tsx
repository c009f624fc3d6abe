/** A finding in words, on the tablet and on the record; one that was withdrawn is struck out and stays. */
import { findingKinds, findingSays, type FindingKindId } from "@core";
import type { RunFinding } from "~/domain/runs/index";
import { momentText, useSite } from "~/ui/site";

interface Props {
  kind: FindingKindId;
  values: Record<string, string>;
  withdrawn: boolean;
}

export function FindingText({ kind, values, withdrawn }: Props) {
  const says = findingSays(kind, values);
  const text = (
    <>
      <strong className={says.bad && !withdrawn ? "text-verm" : ""}>{findingKinds[kind].label}:</strong> {says.text}
    </>
  );
  return withdrawn ? <s>{text}</s> : text;
}

export function Withdrawn({ withdrawn }: { withdrawn: NonNullable<RunFinding["withdrawn"]> }) {
  const site = useSite();
  return (
    <p className="text-sm text-ink-2">
      {`Withdrawn by ${withdrawn.by}, ${momentText(withdrawn.at, site)}${withdrawn.because ? `: ${withdrawn.because}` : ""}`}
    </p>
  );
}
