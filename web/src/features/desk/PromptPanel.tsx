import { type Dispatch, memo } from "react";
import type { Schemas } from "../../api/client";
import { Markdown } from "../../ui/Markdown";
import { StartingFiles } from "../prompt";
import { spelledOut } from "../../ui/spelledOut";
import type { View, ViewChange } from "./view";

type Prompt = Schemas["SheetView"]["prompt"];

type PromptPanelProps = { prompt: Prompt; shown: View["prompt"]; onView: Dispatch<ViewChange> };

const LINK = "text-sm text-tarn underline underline-offset-4";

/** What was asked: request and constraints, and the starting code; each one key away. */
export const PromptPanel = memo(function PromptPanel({ prompt, shown, onView }: PromptPanelProps) {
  if (shown === "folded") {
    return null;
  }
  const files = prompt.startingFiles.length;
  return (
    <section
      aria-label={shown === "code" ? "Starting code" : "Prompt"}
      tabIndex={0}
      className={`mx-4 mt-1.5 shrink-0 overflow-y-auto border-y border-rule py-2 ${shown === "code" ? "max-h-[45vh]" : "max-h-[max(22vh,9rem)]"}`}
    >
      {shown === "code" ? (
        files === 0 ? (
          <p className="text-ink-soft">The prompt comes without code.</p>
        ) : (
          <StartingFiles files={prompt.startingFiles} />
        )
      ) : (
        <>
          <Markdown text={spelledOut(prompt.request)} className="max-w-4xl text-[0.95rem]" />
          {prompt.constraints.length > 0 && (
            <ul className="mt-2 max-w-4xl list-disc pl-5 text-[0.95rem]">
              {prompt.constraints.map((c, i) => (
                <li key={i}>{c}</li>
              ))}
            </ul>
          )}
          {files > 0 && (
            <button type="button" className={`mt-1.5 ${LINK}`} onClick={() => onView({ type: "code" })}>
              Starting code, {files === 1 ? "one file" : `${files} files`}
            </button>
          )}
          {prompt.referenceAnswer !== undefined && (
            <section aria-label="Reference answer" className="mt-3 max-w-4xl border-l-4 border-moss pl-3">
              <h3>Reference answer</h3>
              <Markdown text={prompt.referenceAnswer} className="text-[0.95rem]" />
            </section>
          )}
        </>
      )}
    </section>
  );
});
