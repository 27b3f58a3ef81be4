import type { Schemas } from "../../api/client";

type Found = Schemas["Found"];

/** What something looks like. */
export const SORTS: Record<Found["sort"], string> = {
  PRIVATE_KEY: "a private key",
  NAMED: "a value with a telling name",
  ADDRESS: "a password in an address",
  SIGNED_TOKEN: "a signed token",
  RANDOM: "letters without order",
  MANY: "all that comes after it, too much to tell one by one",
};

/** Where it stands in a prompt. */
export function placeOf(found: Found): string {
  switch (found.part) {
    case "STARTING_FILE":
      return `${found.name}, line ${found.line}`;
    case "REQUEST":
      return `the request, line ${found.line}`;
    case "CONSTRAINT":
      return `constraint ${found.name}, line ${found.line}`;
    case "FOLLOW_UP":
      return `follow-up ${found.name}, line ${found.line}`;
  }
}
