import { type KeyboardEvent, useState } from "react";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { Dialog } from "../../ui/Dialog";
import { altOf, type PageCell, type PageRow } from "./pages";

type ThumbnailProps = { cell: PageCell; label: string; onEnlarge: () => void };

/** A picture of a page as wide as there is room; a click enlarges it. */
export function Thumbnail({ cell, label, onEnlarge }: ThumbnailProps) {
  const [failed, setFailed] = useState(false);
  if (cell.src === undefined || failed) {
    return <p className="text-sm text-ink-soft">{missingWords(cell, failed)}</p>;
  }
  return (
    <button
      type="button"
      aria-label={`Enlarge ${label}`}
      onClick={onEnlarge}
      className="mt-1 block w-full rounded-leaf border border-edge bg-vellum p-0.5 hover:border-tarn"
    >
      <img
        src={cell.src}
        alt={altOf(cell)}
        width={cell.width}
        height={cell.height}
        loading="lazy"
        className="block h-auto w-full"
        onError={() => setFailed(true)}
      />
    </button>
  );
}

const missingWords = (cell: PageCell, failed: boolean): string =>
  cell.isHeld
    ? "Its picture is held back: it may name who wrote it."
    : failed
      ? "The picture cannot be fetched now."
      : "There is no picture.";

/** Which picture is enlarged. */
export type Place = { row: number; column: number };

type PageViewerProps = {
  rows: PageRow[];
  /** What each column is called. */
  heads: string[];
  at: Place;
  onMove: (to: Place) => void;
  onClose: () => void;
};

const STEPS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** One picture as large as the window allows; arrows go to other answers at the same step, and to other steps. */
export function PageViewer({ rows, heads, at, onMove, onClose }: PageViewerProps) {
  const row = rows[at.row];
  const cell = row?.cells[at.column];
  const to = (rowsOn: number, columnsOn: number): Place => ({
    row: Math.min(rows.length - 1, Math.max(0, at.row + rowsOn)),
    column: Math.min(heads.length - 1, Math.max(0, at.column + columnsOn)),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step) {
      event.preventDefault();
      event.stopPropagation();
      onMove(to(...step));
    }
  };
  return (
    <Dialog
      widest
      open
      title={heads.length > 1 ? `${heads[at.column]}: ${row?.name}` : `${row?.name}`}
      onOpenChange={onClose}
      onKeyDown={onKeyDown}
    >
      <div className="mb-2 flex flex-wrap items-center gap-2">
        {heads.length > 1 && (
          <>
            <Button aria-disabled={at.column === 0} onClick={() => onMove(to(0, -1))}>
              Answer to the left
            </Button>
            <Button aria-disabled={at.column === heads.length - 1} onClick={() => onMove(to(0, 1))}>
              Answer to the right
            </Button>
          </>
        )}
        <Button aria-disabled={at.row === 0} onClick={() => onMove(to(-1, 0))}>
          Step before
        </Button>
        <Button aria-disabled={at.row === rows.length - 1} onClick={() => onMove(to(1, 0))}>
          Next step
        </Button>
        <span className="text-sm text-ink-soft">Arrows do the same.</span>
        <Button className="ml-auto" onClick={onClose}>
          Close
        </Button>
      </div>
      <div role="status">
        {cell ? <Enlarged key={cell.src ?? ""} cell={cell} /> : <p>This step was not come to.</p>}
      </div>
    </Dialog>
  );
}

function Enlarged({ cell }: { cell: PageCell }) {
  const [failed, setFailed] = useState(false);
  return (
    <>
      <p className={classes("mb-2 border-l-2 pl-2 wrap-anywhere", cell.good ? "border-lichen" : "border-clay")}>
        {cell.words}
      </p>
      {cell.src === undefined || failed ? (
        <p>{missingWords(cell, failed)}</p>
      ) : (
        <img
          src={cell.src}
          alt={altOf(cell)}
          className="mx-auto block max-h-[68vh] w-auto max-w-full border border-edge"
          onError={() => setFailed(true)}
        />
      )}
      {cell.text.trim() !== "" && (
        <details className="mt-2">
          <summary>What stands on it, as text</summary>
          <p className="mt-1 max-h-40 overflow-auto text-sm wrap-anywhere whitespace-pre-wrap" tabIndex={0}>
            {cell.text}
          </p>
        </details>
      )}
    </>
  );
}

/** The pictures of one answer's page, step by step. */
export function PagePictures({ rows }: { rows: PageRow[] }) {
  const [at, setAt] = useState<Place>();
  return (
    <>
      <ol aria-label="Pictures of the page" className="grid gap-3 sm:grid-cols-3">
        {rows.map((row, i) => (
          <li key={row.key} className="text-sm">
            <p className="wrap-anywhere">{row.name}</p>
            {row.cells[0] && (
              <Thumbnail cell={row.cells[0]} label={row.name} onEnlarge={() => setAt({ row: i, column: 0 })} />
            )}
            {row.cells[0]?.unread && (
              <p className="mt-1 text-ink-soft">
                Not all of it can be read as text: look whether it names who wrote it.
              </p>
            )}
          </li>
        ))}
      </ol>
      {at && <PageViewer rows={rows} heads={["The answer"]} at={at} onMove={setAt} onClose={() => setAt(undefined)} />}
    </>
  );
}
