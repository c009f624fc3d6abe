/**
 * One-letter shortcuts of a page. They are heard on the page itself only: a field or a button
 * that has the focus keeps its letters, a link has none to keep, and a reader can switch them off in the account.
 */
import { useEffect, useRef } from "react";

export const NO_LETTER_KEYS = "noLetterKeys";

export function useLetterKey(key: string, act: () => void): void {
  const newest = useRef(act);
  useEffect(() => {
    newest.current = act;
  });
  useEffect(() => {
    const heard = (event: KeyboardEvent) => {
      if (!isShortcut(event, key) || document.documentElement.dataset[NO_LETTER_KEYS]) return;
      event.preventDefault();
      newest.current();
    };
    document.addEventListener("keydown", heard);
    return () => document.removeEventListener("keydown", heard);
  }, [key]);
}

/** Is this key meant for the page, and not for what has the focus? */
export function isShortcut(
  event: Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "altKey" | "defaultPrevented"> & { target: unknown },
  key: string,
): boolean {
  if (event.key !== key || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false;
  const focused = event.target as { closest?(selector: string): unknown } | null;
  return !focused?.closest?.("input, textarea, select, button, summary, [role=option], [contenteditable=true]");
}
