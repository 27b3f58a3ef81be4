import type { ReactNode } from "react";
import { Explained } from "../../../ui/Explained";
import { classes } from "../../../ui/classes";

type PanelProps = {
  title: string;
  /** Beside the title. */
  aside?: ReactNode;
  how: ReactNode;
  children: ReactNode;
};

/** One view of the workbench: it scrolls by itself, so that all stand on one screen. */
export function Panel({ title, aside, how, children }: PanelProps) {
  return (
    <section
      aria-label={title}
      className="flex max-h-96 min-h-52 min-w-0 flex-col border border-rule bg-vellum lg:max-h-none lg:min-h-0"
    >
      <div className="flex items-baseline gap-2 border-b border-rule px-2 py-0.5">
        <h3 className="font-sans text-sm font-semibold">{title}</h3>
        <span className="ml-auto min-w-0 text-sm text-ink-soft">{aside}</span>
        <Explained of={title.toLowerCase()}>{how}</Explained>
      </div>
      <div className="min-h-0 flex-1 overflow-auto px-2 py-1 text-sm">{children}</div>
    </section>
  );
}

type ChosenProps = {
  chosen: boolean;
  onChoose: (chosen: boolean) => void;
  className?: string;
  children: ReactNode;
};

/** Narrows the page down to what it names, and lets it go again. */
export function Chosen({ chosen, onChoose, className, children }: ChosenProps) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={() => onChoose(!chosen)}
      className={classes(
        "rounded-leaf border text-left",
        chosen ? "border-heather bg-heather-wash text-ink" : "border-transparent hover:border-edge",
        className,
      )}
    >
      {children}
    </button>
  );
}
