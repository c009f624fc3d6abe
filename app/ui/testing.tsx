/** For tests of screens: an element as the server would send it, inside a site and a router. */
import { renderToStaticMarkup } from "react-dom/server";
import { createRoutesStub } from "react-router";
import type { ComponentType, ReactElement } from "react";
import { SiteProvider } from "./site";

/** The moment that tests of screens stand at: Tuesday 24 November 2026, 09:00 UTC. */
export const TEST_NOW = Date.UTC(2026, 10, 24, 9);

/** The element's HTML, at a site in London time. */
export function rendered(element: ReactElement): string {
  const Stub = createRoutesStub([{ path: "/", Component: () => element }]);
  return renderToStaticMarkup(
    <SiteProvider value={{ timeZone: "Europe/London", now: TEST_NOW, units: {} }}>
      <Stub initialEntries={["/"]} />
    </SiteProvider>,
  );
}

/** A page's HTML with what its loader gives, and what its action answered; the record of its address is "id". */
export function renderedPage<P extends { loaderData: unknown }>(
  page: (props: P) => unknown,
  loaderData: P["loaderData"],
  actionData?: unknown,
): string {
  const Page = page as unknown as ComponentType<{ loaderData: unknown; actionData: unknown; params: object }>;
  return rendered(<Page loaderData={loaderData} actionData={actionData} params={{ id: "id" }} />);
}

/** What a reader sees of it: the words without their tags. */
export const wordsOf = (html: string): string =>
  html
    .replace(/<[^>]+>/g, " ")
    .replaceAll("&#x27;", "'")
    .replaceAll("&quot;", '"')
    .replaceAll("&lt;", "<")
    .replaceAll("&gt;", ">")
    .replaceAll("&amp;", "&")
    .replace(/\s+/g, " ")
    .trim();
