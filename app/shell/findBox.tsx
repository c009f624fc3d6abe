/** The find box: opens any machine, component, point or action by a few letters. "/" goes to it. */
import { Command } from "cmdk";
import { useEffect, useRef, useState } from "react";
import { useFetcher, useNavigate } from "react-router";
import type { loader } from "./find";
import { useLetterKey } from "~/ui/letterKey";

export function FindBox() {
  const [text, setText] = useState("");
  const [open, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const fetcher = useFetcher<typeof loader>();
  const navigate = useNavigate();
  const { load } = fetcher;

  useLetterKey("/", () => input.current?.focus());

  useEffect(() => {
    if (text.trim().length === 0) return;
    const timer = setTimeout(() => void load(`/find?q=${encodeURIComponent(text)}`), 120);
    return () => clearTimeout(timer);
  }, [text, load]);

  // what an earlier text found is not offered under this one: Enter would open it
  const current = fetcher.data?.asked === text.trim() ? fetcher.data : undefined;
  const found = text.trim() ? (current?.found ?? []) : [];
  const go = (to: string) => {
    setOpen(false);
    setText("");
    input.current?.blur();
    void navigate(to);
  };

  return (
    <Command
      shouldFilter={false}
      label="Find a machine, point or action"
      className="relative"
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          setOpen(false);
          input.current?.blur();
        }
      }}
    >
      <Command.Input
        ref={input}
        value={text}
        onValueChange={(value) => {
          setText(value);
          setOpen(true);
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => setTimeout(() => setOpen(false), 150)}
        placeholder="Find a machine, point, action"
        maxLength={120}
        className="w-full rounded-[3px] border border-line-2 bg-sheet py-2 pr-9 pl-3 placeholder:text-ink-2"
      />
      <kbd
        aria-hidden="true"
        className="pointer-coarse:hidden pointer-events-none absolute top-2 right-2 rounded-[2px] border border-line-2 px-1.5 text-xs text-ink-2"
      >
        /
      </kbd>
      <Command.List
        hidden={!open || !text.trim()}
        className="absolute top-full right-0 z-20 mt-1 max-h-96 w-full min-w-72 overflow-auto border border-line-2 bg-sheet shadow-lg"
      >
        {text.trim() && current && found.length === 0 ? (
          <Command.Empty className="px-3 py-2 text-ink-2">Nothing by that name.</Command.Empty>
        ) : null}
        {found.map((f) => (
          <Command.Item
            key={f.kind + f.to}
            value={f.to}
            onSelect={() => go(f.to)}
            className="cursor-pointer px-3 py-1.5 data-[selected=true]:bg-sea-soft"
          >
            <span className="block">{f.label}</span>
            <span className="block text-xs text-ink-2">{f.where}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
