/** From a cause to its work: the link says what is asked, and the form begins with it. */
import { renderToStaticMarkup } from "react-dom/server";
import { createRoutesStub } from "react-router";
import { causes } from "@core";
import { BookLink } from "./bookLink";

function hrefOf(act: Parameters<typeof BookLink>[0]["act"]): { text: string; query: Record<string, string> } {
  const link = <BookLink at={{ point: "p-1", component: "k-1" }} act={act} from="isolation" of="c-1" />;
  const Stub = createRoutesStub([{ path: "/", Component: () => link }]);
  const html = renderToStaticMarkup(<Stub initialEntries={["/"]} />);
  const [, href, text] = /href="([^"]+)"[^>]*>([^<]+)</.exec(html)!;
  const url = new URL(href!.replaceAll("&amp;", "&"), "http://quay");
  expect(url.pathname).toBe("/work/book");
  return { text: text!, query: Object.fromEntries(url.searchParams) };
}
const from = { point: "p-1", from: "isolation", of: "c-1" };

test("a part that is replaced at a stop", () =>
  expect(hrefOf({ stop: true, part: true })).toEqual({ text: "Book work into a stop", query: from }));

test("a valve that is set needs no stop and no part", () =>
  expect(hrefOf({ stop: false, part: false })).toEqual({
    text: "Do it now, on record",
    query: { ...from, kind: "repair", now: "1" },
  }));

test("a stop-gap is booked as one", () =>
  expect(hrefOf(causes["valve.stuck"].act).query).toEqual({ ...from, kind: "repair", interim: "1" }));

test("what every cause asks for, the form can begin with", () => {
  for (const { act } of Object.values(causes)) {
    const { text, query } = hrefOf(act);
    expect(query.now === "1").toBe(!act.stop);
    expect(text).toBe(act.stop ? "Book work into a stop" : "Do it now, on record");
    expect(query.interim === "1").toBe(act.interim === true);
  }
});
