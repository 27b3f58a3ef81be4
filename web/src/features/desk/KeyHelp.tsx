import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { KEY_GROUPS } from "./keys";

export function KeyHelp({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog title="Keys at the desk" wide open={open} onOpenChange={onOpenChange}>
      <div className="gap-x-8 md:columns-2">
        {KEY_GROUPS.map((group) => (
          <section key={group.title} className="mb-3 break-inside-avoid">
            <h3>{group.title}</h3>
            <dl className="mt-1 grid grid-cols-[8.5rem_1fr] gap-x-3 gap-y-0.5">
              {group.lines.map(({ shown, what }) => (
                <div key={shown} className="contents">
                  <dt className="font-mono">{shown}</dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="text-ink-soft">Everything is saved as you give it. Escape closes this.</p>
      <div className="mt-4 flex justify-end">
        <Button onClick={() => onOpenChange(false)}>Back to the desk</Button>
      </div>
    </Dialog>
  );
}
