import type { ElementContent, RootContent } from "hast";
import bash from "highlight.js/lib/languages/bash";
import c from "highlight.js/lib/languages/c";
import cpp from "highlight.js/lib/languages/cpp";
import csharp from "highlight.js/lib/languages/csharp";
import css from "highlight.js/lib/languages/css";
import go from "highlight.js/lib/languages/go";
import java from "highlight.js/lib/languages/java";
import javascript from "highlight.js/lib/languages/javascript";
import json from "highlight.js/lib/languages/json";
import kotlin from "highlight.js/lib/languages/kotlin";
import markdown from "highlight.js/lib/languages/markdown";
import php from "highlight.js/lib/languages/php";
import python from "highlight.js/lib/languages/python";
import ruby from "highlight.js/lib/languages/ruby";
import rust from "highlight.js/lib/languages/rust";
import sql from "highlight.js/lib/languages/sql";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import yaml from "highlight.js/lib/languages/yaml";
import { createLowlight } from "lowlight";
import type { Piece } from "./pieces";

/** The grammars of programming languages, loaded when the first code is shown. */
const lowlight = createLowlight({
  bash,
  c,
  cpp,
  csharp,
  css,
  go,
  java,
  javascript,
  json,
  kotlin,
  markdown,
  php,
  python,
  ruby,
  rust,
  sql,
  typescript,
  xml,
  yaml,
});
lowlight.registerAlias({
  bash: ["sh", "zsh", "shell"],
  cpp: ["cc", "cxx", "hpp", "hh", "h"],
  csharp: ["cs"],
  go: ["golang"],
  javascript: ["js", "jsx", "mjs", "cjs"],
  kotlin: ["kt", "kts"],
  markdown: ["md"],
  python: ["py"],
  ruby: ["rb"],
  rust: ["rs"],
  typescript: ["ts", "tsx", "mts"],
  xml: ["html", "svg", "xhtml"],
  yaml: ["yml"],
});

const LOOKS: Record<string, string> = {
  "hljs-keyword": "tok-keyword",
  "hljs-built_in": "tok-type",
  "hljs-type": "tok-type",
  "hljs-string": "tok-string",
  "hljs-comment": "tok-comment",
  "hljs-number": "tok-number",
  "hljs-literal": "tok-number",
  "hljs-title": "tok-title",
  "hljs-section": "tok-title",
  "hljs-name": "tok-title",
  "hljs-attr": "tok-type",
  "hljs-attribute": "tok-type",
  "hljs-meta": "tok-comment",
};

function look(names: unknown): string | undefined {
  const list: unknown[] = Array.isArray(names) ? names : [];
  return list.map((n) => LOOKS[String(n)]).find((n) => n !== undefined);
}

/** The code in lines of coloured pieces; nothing if the language is not known. */
export function coloured(language: string, text: string): Piece[][] | undefined {
  if (!lowlight.registered(language)) {
    return undefined;
  }
  const lines: Piece[][] = [[]];
  const add = (nodes: (RootContent | ElementContent)[], inherited: string | undefined): void => {
    for (const node of nodes) {
      if (node.type === "element") {
        add(node.children, look(node.properties["className"]) ?? inherited);
      } else if (node.type === "text") {
        node.value.split("\n").forEach((part, i) => {
          if (i > 0) {
            lines.push([]);
          }
          if (part !== "") {
            lines.at(-1)?.push(inherited ? { text: part, look: inherited } : { text: part });
          }
        });
      }
    }
  };
  add(lowlight.highlight(language, text).children, undefined);
  return lines;
}
