/** What the pages of this place say, page by page; a page holds no text of its own. */
export const insecure = {
  thisAddressIsNot:
    "This address is not served over HTTPS, so this page cannot be opened again without a network. Keep " +
    "it open until all is sent, or ask for an https:// address.",
};

export const store = {
  theServerCannotRead: "The server cannot read this entry.",
};

export const useOutbox = {
  keptHere: (waiting: number) => ` · ${waiting} kept here`,
  whatYouEnterIs: " · what you enter is kept here",
  noNetwork: (kept: string) => `no network${kept}`,
  signedOut: (kept: string) => `signed out${kept}`,
  theServerDoesNot: (kept: string) => `the server does not answer${kept}`,
  allSent: "all sent",
};
