/** Joins class names, leaving out what is empty. */
export function classes(...names: (string | false | undefined)[]): string {
  return names.filter(Boolean).join(" ");
}
