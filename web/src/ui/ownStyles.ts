/** The word that the server put into the page, by which the browser knows elements with styles as the page's own. */
export const OWN_STYLES = document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "";
