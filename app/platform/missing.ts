/** What was asked for is not there: thrown by whoever looks it up, and made a page by the guard of the request. */
export class Missing extends Error {
  /** @param what in words: "point" */
  constructor(readonly what: string) {
    super(`There is no such ${what}.`);
  }
}

export const notFound = (what: string): Missing => new Missing(what);
