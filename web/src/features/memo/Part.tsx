import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { Markdown } from "../../ui/Markdown";
import { Appendix } from "./Appendix";
import type { Which } from "./api";
import { MemoTable } from "./MemoTable";

type MemoPart = Schemas["MemoPart"];

type PartProps = {
  which: Which;
  part: MemoPart;
  /** What the lead writes here, or writes it in. */
  words: ReactNode;
};

export const anchorOf = (part: MemoPart) => `part-${part.section.toLowerCase().replace("_", "-")}`;

/** A part of a memo: what the study says, then what the lead does. */
export function Part({ which, part, words }: PartProps) {
  return (
    <section id={anchorOf(part)} className="mt-8 scroll-mt-4 border-t border-rule pt-4 font-serif leading-relaxed">
      <h2 className="mb-2">{part.title}</h2>
      {part.sentences.map((sentence) => (
        <p key={sentence} className="my-1.5 [overflow-wrap:anywhere]">
          {sentence}
        </p>
      ))}
      {part.points.length > 0 && (
        <dl className="my-2 grid gap-2">
          {part.points.map((point) => (
            <div key={point.label + point.text} className="[overflow-wrap:anywhere]">
              <dt className="font-semibold">{point.label}</dt>
              <dd className="whitespace-pre-line">{point.text}</dd>
            </div>
          ))}
        </dl>
      )}
      {part.quoted && <Markdown text={part.quoted} below="section" className="my-3 text-ink-soft" />}
      {words}
      <div className="font-sans leading-normal">
        {part.plots.map((plot) => (
          <Plot key={plot.caption} plot={plot} />
        ))}
        {part.tables.map((table) => (
          <MemoTable key={table.caption} table={table} />
        ))}
        {part.section === "APPENDIX" && <Appendix which={which} />}
      </div>
    </section>
  );
}

function Plot({ plot }: { plot: Schemas["MemoPlot"] }) {
  const axis = { from: plot.from, to: plot.to, marks: [], decimals: plot.to > 1 ? 0 : 2 };
  return (
    <figure className="my-4" aria-hidden="true">
      <figcaption className="text-sm text-ink-soft">{plot.caption}</figcaption>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,300px)] items-center gap-x-4">
        <span />
        <IntervalAxis axis={axis} />
        {plot.rows.map((row) => (
          <div key={row.name} className="contents">
            <span className="truncate">{row.name}</span>
            <IntervalRow figure={row} axis={axis} pigment="var(--tarn)" />
          </div>
        ))}
      </div>
    </figure>
  );
}
