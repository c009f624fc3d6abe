/** What a person sees when a page cannot be shown, and what to do next. */
import { useEffect } from "react";
import { Link, useRevalidator } from "react-router";

const RETRY_MS = 3000;

function Waiting({ title, children }: { title: string; children: string }) {
  const revalidator = useRevalidator();
  useEffect(() => {
    const timer = setInterval(() => {
      fetch("/readyz").then(
        (answer) => {
          if (answer.ok) void revalidator.revalidate();
        },
        () => undefined,
      );
    }, RETRY_MS);
    return () => clearInterval(timer);
  }, [revalidator]);
  return (
    <>
      <h1>{title}</h1>
      <p className="mt-2">{children}</p>
    </>
  );
}

export function ErrorPage({ status, detail }: { status: number; detail: unknown }) {
  const kind =
    typeof detail === "object" && detail !== null && "kind" in detail
      ? (detail as { kind: string; what?: string; needs?: string; has?: string })
      : undefined;
  return (
    <main className="mx-auto max-w-xl px-6 py-20">
      {kind?.kind === "database" ? (
        <Waiting title="The database does not answer">
          Nothing that was saved is lost. This page looks again every few seconds and goes on by itself.
        </Waiting>
      ) : kind?.kind === "busy" ? (
        <Waiting title="Many people ask at this moment">
          All is well, only busy: nothing is lost. This page tries again every few seconds and goes on by itself.
        </Waiting>
      ) : kind?.kind === "forbidden" ? (
        <>
          <h1>This is for an {kind.needs}</h1>
          <p className="mt-2">
            <>You are signed in as {kind.has}. Ask an engineer of your site to do it, or sign in with another name.</>
          </p>
        </>
      ) : status === 404 ? (
        <>
          <h1>{`There is no such ${kind?.what ?? "page"}`}</h1>
          <p className="mt-2">
            The address may be old, or the record was retired. The find box opens machines and points by name.
          </p>
        </>
      ) : (
        <>
          <h1>This page could not be made</h1>
          <p className="mt-2">The fault is ours and has been written to the log. What you saved before is safe.</p>
        </>
      )}
      <p className="mt-5">
        <Link to="/" className="act">
          Go to Today
        </Link>
      </p>
    </main>
  );
}
