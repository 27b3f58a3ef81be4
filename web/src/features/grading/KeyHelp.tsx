import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";

const KEYS: [string, string][] = [
  ["arrows", "move in the grade table"],
  ["Home, End", "to the first or the last answer"],
  ["0 – 9", "give the level"],
  ["x", "not applicable"],
  ["Delete", "take the grade away"],
  ["w", "write why; Escape goes back to the table"],
  ["o", "one answer over the whole width, and back"],
  ["p", "fold or show the prompt"],
  ["s", "send the sheet in and open the next"],
  ["Tab", "to the texts, to read on with the arrows"],
  ["?", "this list"],
];

export function KeyHelp({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog title="Keys at the desk" open={open} onOpenChange={onOpenChange}>
      <dl className="grid grid-cols-[6rem_1fr] gap-y-1.5">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-ink-soft">Every grade is saved as you give it. Escape closes this.</p>
      <div className="mt-4 flex justify-end">
        <Button onClick={() => onOpenChange(false)}>Back to the desk</Button>
      </div>
    </Dialog>
  );
}
