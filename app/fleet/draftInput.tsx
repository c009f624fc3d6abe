/** A field of the drawing board: what is typed counts when the field is left, and undo shows in it. */
import { useState, type ComponentProps } from "react";
import { fieldClass } from "~/ui/form";

export function DraftInput({
  value,
  onCommit,
  ...rest
}: Omit<ComponentProps<"input">, "value" | "onChange" | "onBlur"> & {
  value: string;
  /** Trimmed, and other than it was. What is refused stays typed. */
  onCommit: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  const [known, setKnown] = useState(value);
  if (value !== known) {
    setKnown(value);
    setText(value);
  }
  return (
    <input
      {...rest}
      className={fieldClass}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => {
        if (text.trim() !== value) onCommit(text.trim());
      }}
    />
  );
}
