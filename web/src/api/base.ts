/** Where the application stands below its address, as the server says in the page; empty for the address itself. */
export const BASE = document.querySelector<HTMLMetaElement>('meta[name="mossbank-base"]')?.content ?? "";

/** An address of this server, wherever it stands below its own. */
export const at = (path: string): string => BASE + path;

/** A place in this application, without where the application stands. */
export const within = (pathname: string): string => pathname.slice(BASE.length);
