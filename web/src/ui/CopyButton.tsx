import { Button } from "./Button";
import { useCopy } from "./useCopy";

const MOST_ROWS = 6;

/** Copies text and says so; where the browser does not let it, the text is there to be marked. */
export function CopyButton({ text, label }: { text: string; label: string }) {
  const [copied, copy] = useCopy(text);
  return (
    <>
      <Button onClick={copy}>
        <span aria-live="polite">{copied === "copied" ? "Copied" : label}</span>
      </Button>
      {copied === "refused" && (
        <label className="mt-1 block text-sm">
          This browser copies nothing from here. Take it by hand:
          <textarea
            readOnly
            autoFocus
            rows={Math.min(text.split("\n").length, MOST_ROWS)}
            value={text}
            className="mt-1 block w-full rounded-leaf border border-edge bg-vellum px-2 py-0.5"
            onFocus={(e) => e.target.select()}
          />
        </label>
      )}
    </>
  );
}
