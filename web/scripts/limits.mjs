/*
 * Writes down for the client how long each text and list may be that the server takes, from the description of what it
 * serves: LIMITS.Schema.property is the most characters of a text; of a list, the most items, and the most characters of each.
 */
import { readFileSync, writeFileSync } from "node:fs";

const [description, target] = process.argv.slice(2);
const { schemas } = JSON.parse(readFileSync(description, "utf8")).components;

const limitOf = ({ type, maxLength, maxItems, items }) =>
  type !== "array" ? maxLength : maxItems === undefined ? undefined : { most: maxItems, each: items.maxLength };

const limits = {};
for (const [schema, { properties = {} }] of Object.entries(schemas)) {
  const own = Object.entries(properties)
    .map(([name, property]) => [name, limitOf(property)])
    .filter(([, limit]) => limit !== undefined);
  if (own.length > 0) {
    limits[schema] = Object.fromEntries(own);
  }
}
writeFileSync(target, `export const LIMITS = ${JSON.stringify(limits, null, 2)} as const;\n`);
