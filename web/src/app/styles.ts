import { setNonce } from "get-nonce";
import { OWN_STYLES } from "../ui/ownStyles";

/** Menus and dialogs put an element with styles into the page, which the browser allows only with the page's word. */
export function allowOwnStyles(): void {
  if (OWN_STYLES) {
    setNonce(OWN_STYLES);
  }
}
