/** Finds a component of the fleet by a few letters. */
import { Command } from "cmdk";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";

interface Answer {
  /** The text that it answers. */
  asked: string;
  found: { kind: string; id: string; label: string; where: string }[];
}

export function ComponentPicker({
  label,
  placeholder,
  onPick,
}: {
  label: string;
  placeholder: string;
  onPick(id: string): void;
}) {
  const [text, setText] = useState("");
  const fetcher = useFetcher<Answer>();
  const { load } = fetcher;
  useEffect(() => {
    if (text.trim() === "") return;
    const timer = setTimeout(() => void load(`/find?kind=component&q=${encodeURIComponent(text)}`), 120);
    return () => clearTimeout(timer);
  }, [text, load]);
  // what an earlier text found is not offered under this one: Enter would open it
  const current = fetcher.data?.asked === text.trim() ? fetcher.data : undefined;
  const found = text.trim() ? (current?.found ?? []) : [];
  return (
    <Command shouldFilter={false} label={label} className="relative">
      <Command.Input
        value={text}
        onValueChange={setText}
        onBlur={() => setTimeout(() => setText(""), 150)}
        placeholder={placeholder}
        maxLength={120}
        className="w-full rounded-[3px] border border-line-2 bg-sheet px-3 py-2 placeholder:text-ink-2 max-lg:min-h-11"
      />
      <Command.List
        hidden={text.trim() === ""}
        className="absolute top-full right-0 left-0 z-20 mt-1 max-h-72 overflow-auto border border-line-2 bg-sheet shadow-lg"
      >
        {current && found.length === 0 && text.trim() ? (
          <Command.Empty className="px-3 py-2 text-ink-2">No component by that name.</Command.Empty>
        ) : null}
        {found.map((f) => (
          <Command.Item
            key={f.id}
            value={f.id}
            onSelect={() => {
              setText("");
              onPick(f.id);
            }}
            className="cursor-pointer px-3 py-1.5 data-[selected=true]:bg-sea-soft max-lg:min-h-11"
          >
            <span className="block">{f.label}</span>
            <span className="block text-xs text-ink-2">{f.where}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
