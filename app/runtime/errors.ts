/** What an error says, without what was sent along: a failed query carries its parameters, a password's hash among them. */

/** Where an error was thrown: lines of the stack by their form, since a message of several lines stands before them. */
export function stackOf(error: unknown, most = 5): string | undefined {
  if (!(error instanceof Error)) return undefined;
  const lines = (error.stack ?? "").split("\n").filter((line) => /^\s+at /.test(line));
  return lines.slice(0, most).join("\n");
}

/** The message of the innermost cause, one line. */
export function errorText(error: unknown): string {
  let inner = error;
  for (let depth = 0; depth < 6; depth++) {
    const cause = (inner as { cause?: unknown } | null)?.cause;
    if (!cause) break;
    inner = cause;
  }
  const message = inner instanceof Error ? inner.message : String(inner);
  return message
    .replace(/\nparams:[\s\S]*/, "")
    .split("\n")[0]!
    .slice(0, 500);
}
