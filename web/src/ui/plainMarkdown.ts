/** A text as it stands in Markdown: nothing in it is markup, and it stays on its line. */
export const plainMarkdown = (text: string): string =>
  text.replace(/[\\`*_{}[\]<>()#+!|~&]/g, "\\$&").replace(/\s+/g, " ");
