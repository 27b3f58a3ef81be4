import { memo } from "react";
import ReactMarkdown, { type Components } from "react-markdown";
import remarkGfm from "remark-gfm";
import { classes } from "./classes";
import { Code } from "./Code";
import { DiffLines, linesOfDiff } from "./DiffText";
import { plainness, type Plainness } from "./plain";
import { spelledOut } from "./spelledOut";
import { TextBoundary } from "./TextBoundary";

/** How parts of a text from elsewhere are shown: nothing is fetched, and nothing in it can act. */
export const MARKDOWN_PARTS: Components = {
  // Nothing is loaded from elsewhere: a picture is its description.
  img: ({ alt }) => <span className="text-ink-soft">[picture: {alt || "no description"}]</span>,
  a: ({ href, children }) => (
    <a href={href} target="_blank" rel="noopener noreferrer nofollow">
      {children}
    </a>
  ),
  // Scrolls by keyboard as well as by mouse.
  pre: ({ children }) => <pre tabIndex={0}>{children}</pre>,
  code: ({ className, children }) => {
    const language = /language-([\w-]+)/.exec(className ?? "")?.[1];
    const text = String(children).replace(/\n$/, "");
    if (language === "diff" || language === "patch") {
      return (
        <code>
          <DiffLines lines={linesOfDiff(text)} />
        </code>
      );
    }
    return (
      <code>
        <Code language={language} text={text} />
      </code>
    );
  },
  input: ({ checked }) => <span aria-label={checked ? "done" : "open"}>{checked ? "☑" : "☐"}</span>,
};

/** The text's own headings become one level, below the page's heading above them. */
function headings(Level: "h2" | "h3"): Components {
  const heading: Components["h1"] = ({ children }) => <Level>{children}</Level>;
  return { ...MARKDOWN_PARTS, h1: heading, h2: heading, h3: heading, h4: heading, h5: heading, h6: heading };
}

const BELOW_PAGE = headings("h2");
const BELOW_SECTION = headings("h3");

type MarkdownProps = { text: string; className?: string; below?: "page" | "section" };

/** Text from people or models. HTML in it is shown as text, what cannot be seen is spelled out, scripts and remote content cannot occur. */
export const Markdown = memo(function Markdown({ text: asWritten, className, below = "section" }: MarkdownProps) {
  const text = spelledOut(asWritten);
  const why = plainness(text);
  return (
    <div className={classes("prose", className)}>
      {why ? (
        <AsItIs text={text} why={why} />
      ) : (
        <TextBoundary fallback={<AsItIs text={text} why="tangled" />}>
          <ReactMarkdown remarkPlugins={[remarkGfm]} components={below === "page" ? BELOW_PAGE : BELOW_SECTION}>
            {text}
          </ReactMarkdown>
        </TextBoundary>
      )}
    </div>
  );
});

const WHY: Record<Plainness, string> = {
  "very-long": "This text is very long; it is shown as it is.",
  tangled: "This text cannot be laid out as Markdown; it is shown as it is.",
};

/** A text that is not laid out. */
function AsItIs({ text, why }: { text: string; why: Plainness }) {
  return (
    <>
      <p className="my-1 text-sm text-ink-soft">{WHY[why]}</p>
      <pre tabIndex={0} className="max-h-[60vh] overflow-auto whitespace-pre-wrap">
        {text}
      </pre>
    </>
  );
}
