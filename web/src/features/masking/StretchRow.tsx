import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";

type StretchRowProps = {
  stretch: Schemas["StretchView"];
  mayDecide: boolean;
  onDecide: (decision: { from: number; accept?: boolean; replacement?: string }) => void;
};

/** A stretch in its line, what raters read instead, and what was decided. */
export function StretchRow({ stretch: s, mayDecide, onDecide }: StretchRowProps) {
  const [replacement, setReplacement] = useState(s.replacement);
  const where = `${s.found}, line ${s.line}`;
  return (
    <li className="grid items-start gap-x-5 gap-y-2 border-t border-rule py-2.5 first:border-t-0 lg:grid-cols-[1fr_21rem]">
      <p className="font-mono text-sm break-words whitespace-pre-wrap">
        <span className="mr-3 font-sans text-ink-soft">line {s.line}</span>
        {s.before}
        <Shown stretch={s} />
        {s.after}
      </p>
      <div className="flex flex-wrap items-start justify-end gap-2">
        {s.accepted === undefined && mayDecide && (
          <>
            <Field
              label={`Raters read instead of ${where}`}
              labelHidden
              className="w-32"
              maxLength={LIMITS.Decision.replacement}
              value={replacement}
              onChange={(e) => setReplacement(e.target.value)}
            />
            <Button
              aria-label={`Mask it: ${where}`}
              onClick={() => onDecide({ from: s.from, accept: true, replacement })}
            >
              Mask it
            </Button>
            <Button aria-label={`Leave it: ${where}`} onClick={() => onDecide({ from: s.from, accept: false })}>
              Leave it
            </Button>
          </>
        )}
        {s.accepted !== undefined && (
          <span className="py-1 text-ink-soft">{s.accepted ? "masked" : "left as it is"}</span>
        )}
        {s.accepted !== undefined && mayDecide && (
          <Button aria-label={`Take back: ${where}`} onClick={() => onDecide({ from: s.from })}>
            Take back
          </Button>
        )}
      </div>
    </li>
  );
}

/** Masked: struck through, with what stands there for raters. Left: underlined as everything that was found. */
function Shown({ stretch: s }: { stretch: Schemas["StretchView"] }) {
  if (s.accepted) {
    return (
      <>
        <del className="hatched decoration-1">{s.found}</del>{" "}
        <ins className="border-b-2 border-lichen no-underline">{s.replacement}</ins>
      </>
    );
  }
  return (
    <mark
      className={
        s.accepted === undefined
          ? "bg-ochre-wash text-ink underline decoration-ochre"
          : "bg-transparent text-ink underline decoration-dotted"
      }
    >
      {s.found}
    </mark>
  );
}
