/** Without HTTPS a browser keeps no page for later: said before somebody walks off with it. */
import { useSyncExternalStore } from "react";
import { insecure as texts } from "./texts";

export function Insecure() {
  const secure = useSyncExternalStore(
    () => () => undefined,
    () => window.isSecureContext,
    () => true,
  );
  return !secure ? (
    <p role="status" className="mt-2 border-l-4 border-ochre bg-ochre-soft px-3 py-2">
      {texts.thisAddressIsNot}
    </p>
  ) : null;
}
