import { useState } from "react";
import type { Wishes } from "@core";
import { APART, NOT_AT, WITH } from "./board";

type Groups = Wishes["together"];

/** Groups of two or more in which a piece is no longer. */
const parted = (groups: Groups, piece: string): Groups =>
  groups.map((g) => g.filter((id) => id !== piece)).filter((g) => g.length > 1);

/** The piece with another one, and with all that goes with either. */
function joined(groups: Groups, piece: string, other: string): Groups {
  const touches = (g: readonly string[]) => g.includes(piece) || g.includes(other);
  const all = new Set([piece, other, ...groups.filter(touches).flat()]);
  return [...groups.filter((g) => !touches(g)), [...all]];
}

/** Wishes of this visit over those that bookings are. */
export function useWishes(booked: Wishes) {
  const [own, setOwn] = useState<Wishes>(booked);
  const set = (change: Partial<Wishes>) => setOwn((w) => ({ ...w, ...change }));
  const move = (piece: string, way: string) =>
    setOwn((w) => {
      if (way.startsWith(WITH)) return { ...w, together: joined(w.together, piece, way.slice(WITH.length)) };
      if (way === APART) return { ...w, together: parted(w.together, piece) };
      if (way.startsWith(NOT_AT)) {
        const stop = way.slice(NOT_AT.length);
        const own = w.forbidden[piece] ?? [];
        const stops = own.includes(stop) ? own.filter((id) => id !== stop) : [...own, stop];
        return { ...w, forbidden: { ...w.forbidden, [piece]: stops } };
      }
      const { [piece]: _, ...pinned } = w.pinned;
      return { ...w, pinned: way ? { ...pinned, [piece]: way } : pinned };
    });
  return { wishes: own, set, move, reset: () => setOwn(booked) };
}
