import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";
import type { Verdict } from "./cells";

type KeyPoint = Pick<Schemas["KeyPoint"], "weight">;

const CREDIT: Record<Verdict, number> = { COVERED: 1, PARTLY: 0.5, MISSED: 0, CONTRADICTED: -1 };

export type Proposal = { level: number; how: string };

const plain = (n: number) => String(Math.round(n * 100) / 100);

/**
 * The level of correctness that the coverage of key points speaks for; absent until every key point is judged.
 *
 * A covered point counts its weight, a partly covered one half of it, a missed one nothing, and a contradicted one takes its
 * weight away. The share of all weights, at least 0, is laid on the scale and rounded to the nearest level. It is a
 * convention of this product, to be looked at and never taken over unseen.
 */
export function proposedLevel(
  points: KeyPoint[],
  verdicts: (Verdict | undefined)[],
  highestLevel: number,
): Proposal | undefined {
  const total = points.reduce((sum, p) => sum + p.weight, 0);
  if (points.length === 0 || points.some((_, i) => verdicts[i] === undefined)) {
    return undefined;
  }
  const got = points.reduce((sum, p, i) => sum + p.weight * CREDIT[verdicts[i] ?? "MISSED"], 0);
  const share = Math.max(0, got / total);
  const level = Math.round(share * highestLevel);
  const contradicted = verdicts.filter((v) => v === "CONTRADICTED").length;
  const against =
    contradicted > 0
      ? `; ${count(contradicted, "contradicted point counts", "contradicted points count")} against it`
      : "";
  return {
    level,
    how: `Key points weigh in at ${plain(got)} of ${plain(total)} (covered whole, partly half${against}), so ${plain(share * 100)} % of ${highestLevel} is nearest to ${level}.`,
  };
}
