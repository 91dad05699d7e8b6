import { setNonce } from "get-nonce";

/** Styles that a dialog sets while it is open are this page's own by what the server gave it. */
export function beginNonce(): void {
  const told = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
  if (told) {
    setNonce(told);
  }
}
