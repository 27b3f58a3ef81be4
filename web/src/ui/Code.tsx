import type { ElementContent, RootContent } from "hast";
import bash from "highlight.js/lib/languages/bash";
import css from "highlight.js/lib/languages/css";
import java from "highlight.js/lib/languages/java";
import json from "highlight.js/lib/languages/json";
import sql from "highlight.js/lib/languages/sql";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import yaml from "highlight.js/lib/languages/yaml";
import { createLowlight } from "lowlight";
import { Fragment, memo, type ReactNode } from "react";

const lowlight = createLowlight({ bash, css, java, json, sql, typescript, xml, yaml });
lowlight.registerAlias({ typescript: ["ts", "tsx", "js", "jsx", "javascript"], xml: ["html"], yaml: ["yml"] });

/** Longer code is shown plain: colouring it would hold up the page. */
const LONGEST_COLOURED = 60_000;

const LOOKS: Record<string, string> = {
  "hljs-keyword": "tok-keyword",
  "hljs-built_in": "tok-type",
  "hljs-type": "tok-type",
  "hljs-string": "tok-string",
  "hljs-comment": "tok-comment",
  "hljs-number": "tok-number",
  "hljs-literal": "tok-number",
  "hljs-title": "tok-title",
  "hljs-meta": "tok-comment",
};

function look(names: unknown): string | undefined {
  const list: unknown[] = Array.isArray(names) ? names : [];
  return list.map((n) => LOOKS[String(n)]).find((n) => n !== undefined);
}

function toReact(nodes: (RootContent | ElementContent)[]): ReactNode[] {
  return nodes.map((node, i) => {
    if (node.type === "text") {
      return <Fragment key={i}>{node.value}</Fragment>;
    }
    if (node.type === "element") {
      return (
        <span key={i} className={look(node.properties["className"])}>
          {toReact(node.children)}
        </span>
      );
    }
    return null;
  });
}

type CodeProps = { language: string | undefined; text: string };

/** Code in the colours of the theme. Builds elements, never markup from text, so nothing in the code can become a tag. */
export const Code = memo(function Code({ language, text }: CodeProps) {
  if (!language || !lowlight.registered(language) || text.length > LONGEST_COLOURED) {
    return <>{text}</>;
  }
  return <>{toReact(lowlight.highlight(language, text).children)}</>;
});
