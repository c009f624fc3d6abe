import { isShortcut } from "./letterKey";

const pressed = (focused: string | null, more: object = {}) => ({
  key: "n",
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  defaultPrevented: false,
  target: { closest: (selector: string) => (focused && selector.split(", ").includes(focused) ? {} : null) },
  ...more,
});

test("a letter pressed on the page, or on a link that was followed, is a shortcut", () => {
  expect(isShortcut(pressed(null), "n")).toBe(true);
  expect(isShortcut(pressed("a"), "n")).toBe(true);
  expect(isShortcut(pressed(null), "t")).toBe(false);
});

test.each(["input", "textarea", "select", "button", "summary"])("a letter in a focused %s is not", (element) => {
  expect(isShortcut(pressed(element), "n")).toBe(false);
});

test.each([{ ctrlKey: true }, { metaKey: true }, { altKey: true }, { defaultPrevented: true }])(
  "a letter with %o is not",
  (more) => {
    expect(isShortcut(pressed(null, more), "n")).toBe(false);
  },
);
