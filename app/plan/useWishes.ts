import { useState } from "react";
import type { Wishes } from "@core";
import { NOT_AT } from "./board";

/** Wishes of this visit over those that bookings are. */
export function useWishes(booked: Wishes) {
  const [own, setOwn] = useState<Wishes>(booked);
  const set = (change: Partial<Wishes>) => setOwn((w) => ({ ...w, ...change }));
  const move = (piece: string, way: string) =>
    setOwn((w) => {
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
