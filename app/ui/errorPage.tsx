/** What a person sees when a page cannot be shown, and what to do next. */
import { useEffect } from "react";
import { Link, useRevalidator } from "react-router";
import { errorPage as texts } from "./texts";

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
        <Waiting title={texts.theDatabaseDoesNot}>{texts.nothingThatWasSaved}</Waiting>
      ) : kind?.kind === "busy" ? (
        <Waiting title={texts.tooManyAtOnce}>{texts.itGoesOnByItself}</Waiting>
      ) : kind?.kind === "forbidden" ? (
        <>
          <h1>
            {texts.thisIsForAn} {kind.needs}
          </h1>
          <p className="mt-2">{texts.youAreSignedIn(kind.has)}</p>
        </>
      ) : status === 404 ? (
        <>
          <h1>{texts.thereIsNoSuch(kind?.what ?? texts.page)}</h1>
          <p className="mt-2">{texts.theAddressMayBe}</p>
        </>
      ) : (
        <>
          <h1>{texts.thisPageCouldNot}</h1>
          <p className="mt-2">{texts.theFaultIsOurs}</p>
        </>
      )}
      <p className="mt-5">
        <Link to="/" className="act">
          {texts.goToToday}
        </Link>
      </p>
    </main>
  );
}
