/** The rows of the board: each piece with its line in the plan, the ways that are open to it, its companions. */
import { lowerFirst, optionName, readAgainBy, reasonOf, type PlanProblem, type PlanWriter } from "@core";
import { dayText, useSite } from "~/ui/site";
import type { SitePlan } from "~/domain/plan/index.server";
import type { BoardRow } from "./board";
import type { Solved } from "./planner.worker";

/** Pieces offered to go together with, at most. */
const COMPANIONS = 12;

/** Pieces whose machine or component is called by `only`, as the board draws them. */
export function boardRows(
  plan: SitePlan,
  asked: PlanProblem,
  solved: Solved | null,
  ahead: PlanProblem["stops"],
  only: string,
  writer: PlanWriter,
  here: ReturnType<typeof useSite>,
): BoardRow[] {
  const { wishes } = asked;
  const lineOf = new Map(solved?.lines.map((l) => [l.piece, l]));
  const called = (id: string) => `${plan.pieces[id]!.machine}, ${lowerFirst(plan.pieces[id]!.component)}`;
  return asked.pieces.flatMap((piece): BoardRow[] => {
    const facts = plan.pieces[piece.id]!;
    const line = lineOf.get(piece.id) ?? null;
    if (only && !`${facts.machine} ${facts.component}`.toLowerCase().includes(only.toLowerCase())) return [];
    const again = line?.option.kind === "wait" ? readAgainBy(piece, asked.now) : null;
    const ways = [
      ...ahead
        .filter((s) => s.machines === null || s.machines.includes(piece.machine))
        .map((s) => ({ id: s.id, label: `${s.name}, ${dayText(s.at, here)}`, at: s.at })),
      {
        id: "own",
        label:
          line?.option.kind === "own"
            ? `${optionName(line.option, writer)}, ${dayText(line.option.at, here)}`
            : "a stop of its own",
        at: line?.option.kind === "own" ? line.option.at : Infinity,
      },
      { id: "wait", label: again ? `wait, read again by ${dayText(again, here)}` : "wait", at: Infinity },
    ];
    const reason = line ? reasonOf(line, piece, writer) : "";
    const group = wishes.together.find((g) => g.includes(piece.id)) ?? [piece.id];
    const others = asked.pieces.filter((p) => !group.includes(p.id));
    const near = [
      ...others.filter((p) => p.machine === piece.machine),
      ...others.filter((p) => p.machine !== piece.machine),
    ];
    return [
      {
        facts,
        line,
        pinned: wishes.pinned[piece.id] !== undefined,
        forbidden: wishes.forbidden[piece.id] ?? [],
        reason,
        goesWith: group.filter((id) => id !== piece.id && plan.pieces[id]).map(called),
        companions: near.slice(0, COMPANIONS).map((p) => ({ id: p.id, label: called(p.id) })),
        ways,
      },
    ];
  });
}
