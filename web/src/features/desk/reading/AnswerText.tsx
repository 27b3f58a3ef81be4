import type { Element, ElementContent, Root, RootContent } from "hast";
import { type ComponentProps, memo, type ReactNode } from "react";
import ReactMarkdown, { type Components } from "react-markdown";
import remarkGfm from "remark-gfm";
import { classes } from "../../../ui/classes";
import { count } from "../../../ui/format";
import { MARKDOWN_PARTS } from "../../../ui/Markdown";
import { plainness, type Plainness } from "../../../ui/plain";
import { TextBoundary } from "../../../ui/TextBoundary";
import { spelledOut } from "../../../ui/spelledOut";
import { CodeLines } from "./CodeLines";
import { type Ground, useNotesAt } from "./notes";
import { PlainLines } from "./PlainLines";
import { RemarkNotes } from "./RemarkNote";

const TEXT: Ground = { part: "TEXT" };

type Positioned = { node?: Element | undefined; children?: ReactNode };

const linesOf = (node: Element | undefined) => ({
  from: node?.position?.start.line ?? 1,
  to: node?.position?.end.line ?? 1,
});

/** A block of prose that can be pointed at by its lines, with the remarks that end in it below. */
function block(Tag: "p" | "li" | "blockquote" | "table" | "h3") {
  return function Block({ node, children }: Positioned) {
    const { from, to } = linesOf(node);
    const { starting, ending, touched } = useNotesAt(TEXT, from, to);
    // What contains other blocks is not pointed at itself: the lines inside are.
    const pointed = Tag !== "blockquote" && !(Tag === "li" && hasBlocks(node));
    const before = pointed && <RemarkNotes notes={starting} margin="beside" />;
    const after = pointed && <RemarkNotes notes={ending} margin="below" />;
    // A list has items and nothing else.
    const within = Tag === "li";
    return (
      <>
        {!within && before}
        <Tag
          dir="auto"
          {...(pointed ? { "data-part": "TEXT", "data-from": from, "data-to": to } : {})}
          className={pointed && touched ? "line-noted" : undefined}
        >
          {within && before}
          {children}
          {within && after}
        </Tag>
        {!within && after}
      </>
    );
  };
}

function hasBlocks(node: Element | undefined): boolean {
  return (
    node?.children.some((c) => c.type === "element" && /^(p|ul|ol|pre|blockquote|table)$/.test(c.tagName)) ?? false
  );
}

const heading = block("h3");

function textOf(node: ElementContent): string {
  return node.type === "text" ? node.value : node.type === "element" ? node.children.map(textOf).join("") : "";
}

/** A block of code: it folds, and each of its lines can be pointed at. */
function CodeBlock({ node }: Positioned) {
  const code = node?.children.find((c): c is Element => c.type === "element" && c.tagName === "code");
  const names: unknown = code?.properties["className"];
  const language = /language-(\S+)/.exec(Array.isArray(names) ? names.join(" ") : "")?.[1];
  const text = code ? textOf(code) : "";
  const { from, to } = linesOf(node);
  // An indented block has no fence, so its first line is its own.
  const lines = text.replace(/\n$/, "").split("\n").length;
  const first = to - from + 1 > lines ? from + 1 : from;
  return (
    <details open className="fold">
      <summary className="text-sm text-ink-soft">
        {language ?? "code"}, {count(lines, "line", "lines")}
      </summary>
      <pre tabIndex={0}>
        {language === "diff" || language === "patch" ? (
          <DiffBlock text={text} first={first} />
        ) : (
          <CodeLines language={language} text={text} ground={TEXT} first={first} />
        )}
      </pre>
    </details>
  );
}

/** A unified difference as the answer gives it. */
function DiffBlock({ text, first }: { text: string; first: number }) {
  return (
    <code className="block min-w-max" dir="ltr">
      {spelledOut(text.replace(/\n$/, ""))
        .split("\n")
        .map((line, i) => (
          <DiffLine key={i} line={line} number={first + i} />
        ))}
    </code>
  );
}

function DiffLine({ line, number }: { line: string; number: number }) {
  const { starting, ending, touched } = useNotesAt(TEXT, number, number);
  const look = /^\+(?!\+\+ )/.test(line) ? "line-added" : /^-(?!-- )/.test(line) ? "line-removed" : undefined;
  return (
    <>
      <RemarkNotes notes={starting} margin="beside" />
      <span
        data-part="TEXT"
        data-from={number}
        data-to={number}
        className={classes("block px-1.5", look, touched && "line-noted")}
      >
        {line || "\u200b"}
      </span>
      <RemarkNotes notes={ending} margin="below" />
    </>
  );
}

/** What a heading opens, down to the next of its level: it folds. */
function Section({ children }: { children?: ReactNode }) {
  return (
    <details open className="fold">
      {children}
    </details>
  );
}

const PARTS: Components = {
  ...MARKDOWN_PARTS,
  p: block("p"),
  li: block("li"),
  blockquote: block("blockquote"),
  table: block("table"),
  h1: heading,
  h2: heading,
  h3: heading,
  h4: heading,
  h5: heading,
  h6: heading,
  pre: CodeBlock,
  section: ({ children }) => <Section>{children}</Section>,
};

const isHeading = (node: RootContent): node is Element => node.type === "element" && /^h[1-6]$/.test(node.tagName);

/** Puts each heading and what stands below it, down to the next heading, into a section of its own. */
function sections() {
  return (tree: Root) => {
    const grouped: RootContent[] = [];
    let open: Element | undefined;
    for (const node of tree.children) {
      if (isHeading(node)) {
        const summary: Element = { type: "element", tagName: "summary", properties: {}, children: [node] };
        open = { type: "element", tagName: "section", properties: {}, children: [summary] };
        grouped.push(open);
      } else if (open && node.type !== "doctype") {
        open.children.push(node);
      } else {
        grouped.push(node);
      }
    }
    tree.children = grouped;
  };
}

const REHYPE: NonNullable<ComponentProps<typeof ReactMarkdown>["rehypePlugins"]> = [sections];

/** An answer's text, section by section and block by block; a very long one as plain lines. */
export const AnswerText = memo(function AnswerText({ text }: { text: string }) {
  const why = plainness(text);
  return why ? (
    <AsItIs text={text} why={why} />
  ) : (
    <TextBoundary fallback={<AsItIs text={text} why="tangled" />}>
      <div className="prose reading">
        <ReactMarkdown remarkPlugins={[remarkGfm]} rehypePlugins={REHYPE} components={PARTS}>
          {spelledOut(text)}
        </ReactMarkdown>
      </div>
    </TextBoundary>
  );
});

/** An answer line by line; each can be pointed at as if it were laid out. */
function AsItIs({ text, why }: { text: string; why: Plainness }) {
  return (
    <>
      <p className="my-1 text-sm text-ink-soft">
        {why === "very-long"
          ? `This answer is very long (${count(text.split("\n").length, "line", "lines")}); it is shown as it is, line by line.`
          : "This answer cannot be laid out as Markdown; it is shown as it is, line by line."}
      </p>
      <PlainLines text={text} ground={TEXT} />
    </>
  );
}
