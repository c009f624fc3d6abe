import { createContext, use } from "react";

/** Nonce of the content security policy, known while the server renders. */
const Nonce = createContext<string | undefined>(undefined);
export const NonceProvider = Nonce.Provider;
export const useNonce = () => use(Nonce);
