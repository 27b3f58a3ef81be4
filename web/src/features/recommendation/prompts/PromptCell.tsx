import type { CSSProperties } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { count, duration, fixed, money, percent } from "../../../ui/format";
import type { Mark } from "./address";

type Cell = Schemas["PromptCell"];

const HIGHEST = 100;

/** How deep the score's ground is; the number says the same. */
const ground = (score: number): CSSProperties & Record<"--share", number> => ({ "--share": score / HIGHEST });

type PromptCellProps = { cell: Cell; marks: Mark[]; name: string; to?: string };

/** What a candidate made of a prompt: its score, and beside it what is chosen. */
export function PromptCell({ cell, marks, name, to }: PromptCellProps) {
  if (cell.answers === 0) {
    return <span className="text-ink-soft">no answer</span>;
  }
  const score = cell.score === undefined ? "–" : fixed(cell.score, 0);
  return (
    <>
      {to === undefined ? (
        <strong className="font-medium">{score}</strong>
      ) : (
        <Link
          to={to}
          aria-label={`${name}: ${score === "–" ? "no score" : score}`}
          className="level-ramp inline-block min-w-9 rounded-leaf border border-rule px-1 text-center font-medium"
          style={ground(cell.score ?? 0)}
        >
          {score}
        </Link>
      )}
      {marks.map((mark) => {
        const words = said(mark, cell);
        return (
          words && (
            <span key={mark} className="block text-xs whitespace-nowrap text-ink-soft">
              {words}
            </span>
          )
        );
      })}
    </>
  );
}

/** What a mark says of a cell; nothing where there is nothing to say. */
export function said(mark: Mark, cell: Cell): string | undefined {
  switch (mark) {
    case "works": {
      const tried = cell.asIs + cell.repaired + cell.not;
      return tried === 0
        ? undefined
        : `works ${cell.asIs}${cell.repaired > 0 ? ` + ${cell.repaired}` : ""} of ${tried}`;
    }
    case "trials":
      return cell.tried === 0 ? undefined : `tried: ${cell.passed} of ${cell.tried} pass`;
    case "points":
      return cell.points === 0 ? undefined : `points ${percent(cell.covered / cell.points)}`;
    case "outcome":
      return cell.complete === cell.answers ? "complete" : `complete ${cell.complete} of ${cell.answers}`;
    case "turns":
      return count(cell.followUps, "follow-up", "follow-ups");
    case "cost":
      return cell.cost === undefined || cell.currency === undefined ? undefined : money(cell.cost, cell.currency);
    case "time":
      return cell.totalMs === undefined ? undefined : duration(cell.totalMs);
  }
}
