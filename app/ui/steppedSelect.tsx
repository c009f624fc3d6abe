/**
 * A choice that sets work going, such as solving a plan again. Stepping through it with the keys only shows what it
 * would be; Enter or leaving the field takes it. A pointer takes it at once.
 */
import { useRef, useState, type ComponentProps } from "react";

export function SteppedSelect({
  value,
  onTake,
  ...rest
}: Omit<ComponentProps<"select">, "value" | "onChange" | "onBlur" | "onKeyDown" | "onPointerDown"> & {
  value: string;
  onTake(value: string): void;
}) {
  const [looked, setLooked] = useState<string | null>(null);
  const byKeys = useRef(false);
  const take = (chosen: string) => {
    setLooked(null);
    if (chosen !== value) onTake(chosen);
  };
  return (
    <select
      {...rest}
      value={looked ?? value}
      onPointerDown={() => {
        byKeys.current = false;
      }}
      onKeyDown={(event) => {
        byKeys.current = true;
        if (event.key === "Escape") setLooked(null);
        if (event.key === "Enter" && looked !== null) {
          event.preventDefault();
          take(looked);
        }
      }}
      onChange={(event) => {
        if (byKeys.current) setLooked(event.target.value);
        else take(event.target.value);
      }}
      onBlur={() => {
        if (looked !== null) take(looked);
      }}
    />
  );
}
