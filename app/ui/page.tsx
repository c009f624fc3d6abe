/** The frame of a screen: where you are, one heading that says the finding, and the find box. */
import type { ReactNode } from "react";
import { Link } from "react-router";

export interface Crumb {
  label: string;
  to?: string;
}

export function PageHead({
  crumbs = [],
  title,
  children,
}: {
  crumbs?: readonly Crumb[];
  title: ReactNode;
  children?: ReactNode;
}) {
  return (
    <header className="mb-4 pr-0 lg:pr-72">
      {crumbs.length > 0 ? (
        <nav aria-label="Where you are" className="mb-1 text-sm text-ink-2">
          {crumbs.map((c, i) => (
            <span key={i}>
              {i > 0 ? <span aria-hidden="true"> › </span> : null}
              {c.to ? (
                <Link to={c.to} className="hover:text-ink hover:underline">
                  {c.label}
                </Link>
              ) : (
                c.label
              )}
            </span>
          ))}
        </nav>
      ) : null}
      <h1>{title}</h1>
      {children ? <div className="mt-1 text-ink-2">{children}</div> : null}
    </header>
  );
}

/** A part of a screen under a ruled heading. */
export function Section({
  title,
  aside,
  children,
  className = "",
}: {
  title: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section className={`mb-7 ${className}`}>
      <div className="ruled flex items-baseline justify-between gap-3 pb-1.5">
        <h2 className="min-w-0 [overflow-wrap:anywhere]">{title}</h2>
        {aside ? <div className="text-right text-sm text-ink-2">{aside}</div> : null}
      </div>
      {children}
    </section>
  );
}

/** Nothing to show: says why, and what to do next. */
export function Empty({ children }: { children: ReactNode }) {
  return <div className="max-w-prose py-6 text-ink-2">{children}</div>;
}
