import type { Dispatch } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { SavedSign } from "./SavedSign";
import type { Desk } from "./useDesk";
import { isPromptOpen, type View, type ViewChange } from "./view";

type SheetHeadProps = {
  sheet: Schemas["SheetView"];
  desk: Desk;
  view: View;
  onView: Dispatch<ViewChange>;
  fromCopy: boolean;
  /** Sends the sheet in; absent where it cannot be sent. */
  onSend: (() => void) | undefined;
  sending: boolean;
};

const LINK = "text-sm text-tarn underline underline-offset-4";

/** Which sheet it is, whether it is saved, and what can be done with all of it. */
export function SheetHead({ sheet, desk, view, onView, fromCopy, onSend, sending }: SheetHeadProps) {
  return (
    <div className="flex items-baseline gap-x-3 px-4 pt-2 max-lg:flex-wrap">
      <h1 className="truncate text-lg max-lg:basis-full">{sheet.prompt.title}</h1>
      <span className="text-sm whitespace-nowrap text-ink-soft">
        {[sheet.prompt.kind, sheet.prompt.language].filter(Boolean).join(" · ")} · sheet {sheet.place} of{" "}
        {sheet.ofSheets}
      </span>
      <button
        type="button"
        aria-expanded={isPromptOpen(view)}
        className={`${LINK} whitespace-nowrap`}
        onClick={() => onView({ type: "prompt" })}
      >
        {isPromptOpen(view) ? "Fold the prompt" : "Show the prompt"}
      </button>
      <span className="ml-auto" />
      {view.tied && <span className="text-sm whitespace-nowrap">scrolling together</span>}
      <SavedSign outbox={desk.outbox} fromCopy={fromCopy} />
      <button type="button" className={LINK} onClick={() => onView({ type: "help", open: true })}>
        Keys
      </button>
      {onSend && (
        <Button tone="primary" disabled={sending} onClick={onSend}>
          Send in
        </Button>
      )}
    </div>
  );
}
