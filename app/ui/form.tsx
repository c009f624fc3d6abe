/** Fields of a form: label, value as typed, hint, and a message beside the field. */
import { createContext, use, useEffect, useId, useRef, type ComponentProps, type ReactNode } from "react";
import { useNavigation } from "react-router";

/** Messages of one form by field, and what its ids begin with: two forms of a page may hold fields of one name. */
const Problems = createContext<{ problems: Record<string, string>; scope: string }>({ problems: {}, scope: "" });

/** Gives the fields below it their messages, and shows the one for the whole form. */
export function FormProblemsProvider({
  problems = {},
  focus = true,
  children,
}: {
  problems?: Record<string, string> | undefined;
  /** Go to the first field with a message; not while somebody types. */ focus?: boolean;
  children: ReactNode;
}) {
  const box = useRef<HTMLDivElement>(null);
  const scope = useId();
  useEffect(() => {
    if (!focus || Object.keys(problems).length === 0) return;
    const first = box.current?.querySelector<HTMLElement>("[aria-invalid=true]");
    first?.focus();
  }, [problems, focus]);
  return (
    <Problems value={{ problems, scope }}>
      <div ref={box}>
        {problems.form ? <Notice tone="verm">{problems.form}</Notice> : null}
        {children}
      </div>
    </Problems>
  );
}

export const fieldClass =
  "w-full min-w-0 max-lg:min-h-11 rounded-[3px] border border-line-2 bg-sheet px-3 py-2 text-ink " +
  "placeholder:text-ink-2 aria-invalid:border-verm aria-invalid:border-2";

interface FieldProps {
  name: string;
  label: string;
  hint?: ReactNode;
}

/** `described`: what the caller describes the field with, beside its message and its hint. */
function useField(name: string, hint?: ReactNode, described?: string) {
  const { problems, scope } = use(Problems);
  const problem = problems[name];
  // a hint is not a problem: its id says so, to whoever looks for what was refused
  const [id, messageId] = [`${scope}f-${name}`, `${scope}${problem ? "p" : "h"}-${name}`];
  const by = [problem || hint ? messageId : "", described ?? ""].filter(Boolean).join(" ");
  return {
    frame: { id, messageId, problem },
    attributes: {
      id,
      name,
      "aria-invalid": problem ? true : undefined,
      "aria-describedby": by || undefined,
    } as const,
  };
}

function Frame({
  frame: { id, messageId, problem },
  label,
  hint,
  children,
}: Omit<FieldProps, "name"> & { frame: ReturnType<typeof useField>["frame"]; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-0.5 block text-sm text-ink-2">
        {label}
      </label>
      {children}
      {problem ? (
        <p id={messageId} className="mt-1 text-sm font-medium text-verm">
          {problem}
        </p>
      ) : hint ? (
        <p id={messageId} className="mt-1 text-xs text-ink-2">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

export function TextField({
  name,
  label,
  hint,
  suffix,
  className = "",
  "aria-describedby": described,
  ...rest
}: FieldProps & { suffix?: string } & ComponentProps<"input">) {
  const { frame, attributes } = useField(name, hint, described);
  return (
    <Frame frame={frame} label={label} hint={hint}>
      <span className="relative block">
        <input {...attributes} autoComplete="off" className={`${fieldClass} ${className}`} {...rest} />
        {suffix ? (
          <span className="pointer-events-none absolute top-1/2 right-3 -translate-y-1/2 text-sm text-ink-2">
            {suffix}
          </span>
        ) : null}
      </span>
    </Frame>
  );
}

export function TextArea({ name, label, hint, className = "", ...rest }: FieldProps & ComponentProps<"textarea">) {
  const { frame, attributes } = useField(name, hint);
  return (
    <Frame frame={frame} label={label} hint={hint}>
      <textarea {...attributes} rows={3} className={`${fieldClass} ${className}`} {...rest} />
    </Frame>
  );
}

export function SelectField({
  name,
  label,
  hint,
  options,
  ...rest
}: FieldProps & { options: readonly { value: string; label: string }[] } & ComponentProps<"select">) {
  const { frame, attributes } = useField(name, hint);
  return (
    <Frame frame={frame} label={label} hint={hint}>
      <select {...attributes} className={`${fieldClass} pr-8`} {...rest}>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </Frame>
  );
}

export function CheckField({ name, label, ...rest }: { name: string; label: ReactNode } & ComponentProps<"input">) {
  const { frame, attributes } = useField(name);
  return (
    <div>
      <label className="flex min-h-9 items-center gap-2 max-lg:min-h-11">
        <input type="checkbox" {...attributes} className="size-4 accent-sea" {...rest} />
        <span>{label}</span>
      </label>
      {frame.problem ? (
        <p id={frame.messageId} className="text-sm font-medium text-verm">
          {frame.problem}
        </p>
      ) : null}
    </div>
  );
}

const buttonTone = {
  main: "bg-sea text-on-sea border-sea font-semibold",
  plain: "bg-transparent text-sea border-line-2",
  danger: "bg-transparent text-verm border-verm",
};

export function Button({
  tone = "main",
  className = "",
  ...rest
}: { tone?: keyof typeof buttonTone } & ComponentProps<"button">) {
  const busy = useNavigation().state === "submitting";
  return (
    <button
      type="submit"
      disabled={busy && rest.type !== "button"}
      className={`min-h-10 max-lg:min-h-11 rounded-[3px] border px-4 py-2 disabled:opacity-60 ${buttonTone[tone]} ${className}`}
      {...rest}
    />
  );
}

/** A message that stands by itself. */
export function Notice({
  tone = "sea",
  children,
  live = true,
}: {
  tone?: "sea" | "ochre" | "verm";
  children: ReactNode;
  live?: boolean;
}) {
  const tones = {
    sea: "border-sea bg-sea-soft",
    ochre: "border-ochre bg-ochre-soft",
    verm: "border-verm bg-verm-soft",
  };
  return (
    <div
      role={live ? (tone === "verm" ? "alert" : "status") : "note"}
      className={`mb-3 border-l-4 px-3 py-2 text-ink ${tones[tone]}`}
    >
      {children}
    </div>
  );
}
