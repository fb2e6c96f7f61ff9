/** Hands styled-components the page's nonce before it makes its first style element. */
declare global {
  var __webpack_nonce__: string | undefined;
}
const meta = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]');
globalThis.__webpack_nonce__ = meta?.nonce || meta?.getAttribute("nonce") || undefined;

export const nonce = globalThis.__webpack_nonce__;
