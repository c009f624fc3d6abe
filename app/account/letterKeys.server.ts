/** Whether one-letter shortcuts work for this reader. They can be switched off: speech input types letters anywhere. */
import { createCookie } from "react-router";

const cookie = createCookie("juncteral-keys", { path: "/", sameSite: "lax", httpOnly: true });

export async function letterKeysOff(request: Request): Promise<boolean> {
  return (await cookie.parse(request.headers.get("Cookie"))) === "off";
}

export function letterKeysCookie(off: boolean): Promise<string> {
  return cookie.serialize(off ? "off" : "", { maxAge: off ? 31_536_000 : 0 });
}
