/** The reader's choice of light or dark; without one, the device decides. */
import { createCookie } from "react-router";

export const themes = ["light", "dark"] as const;
export type Theme = (typeof themes)[number];

const cookie = createCookie("juncteral-theme", { path: "/", sameSite: "lax", httpOnly: true });

export async function themeOf(request: Request): Promise<Theme | null> {
  const value: unknown = await cookie.parse(request.headers.get("Cookie"));
  return themes.find((t) => t === value) ?? null;
}

export function themeCookie(theme: Theme | null): Promise<string> {
  return cookie.serialize(theme ?? "", { maxAge: theme ? 31_536_000 : 0 });
}
