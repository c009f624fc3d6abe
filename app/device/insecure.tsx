/** Without HTTPS a browser keeps no page for later: said before somebody walks off with it. */
import { useSyncExternalStore } from "react";

export function Insecure() {
  const secure = useSyncExternalStore(
    () => () => undefined,
    () => window.isSecureContext,
    () => true,
  );
  return !secure ? (
    <p role="status" className="mt-2 border-l-4 border-ochre bg-ochre-soft px-3 py-2">
      This address is not served over HTTPS, so this page cannot be opened again without a network. Keep it open until
      all is sent, or ask for an https:// address.
    </p>
  ) : null;
}
