import type { Schemas } from "../../api/client";
import { duration, money } from "../../ui/format";
import type { FigureLike } from "../../ui/IntervalRow";

type Report = Schemas["CostReport"];
type Team = Schemas["TeamCostReport"];

/** What quality is held against. */
export type Against = "cost" | "time" | "works" | "month";

export const AGAINST: { value: Against; label: string }[] = [
  { value: "cost", label: "cost of a prompt" },
  { value: "works", label: "cost of an answer that works" },
  { value: "time", label: "time of an answer" },
  { value: "month", label: "cost of a month for the team" },
];

/** One candidate in the picture. */
export type Mark = {
  candidateId: string;
  name: string;
  /** Its place in the study’s list, which decides its sign. */
  index: number;
  ruledOut: boolean;
  score: FigureLike;
  taken: FigureLike;
  /** Whether nobody outdoes it. */
  front: boolean;
};

export type Drawn = {
  marks: Mark[];
  /** Names of those that have no place, as a figure is missing. */
  left: string[];
  unit: string;
  tick: (value: number) => string;
};

const MEASURES = { cost: "COST", time: "TIME", works: "ONE_THAT_WORKS" } as const;

function takenOf(row: Report["rows"][number], against: Against, team: Team | undefined): FigureLike {
  switch (against) {
    case "cost":
      return row.cost;
    case "time":
      return row.time;
    case "works":
      return row.oneThatWorks;
    case "month": {
      const way = team?.rows.find((r) => r.candidateId === row.candidateId)?.ways[0];
      return way === undefined || team?.currency === undefined ? {} : { value: way.monthly };
    }
  }
}

function frontOf(report: Report, against: Against, team: Team | undefined): string[] {
  return against === "month"
    ? (team?.front ?? [])
    : (report.fronts.find((f) => f.measure === MEASURES[against])?.candidateIds ?? []);
}

/** What is drawn of candidates against a measure. */
export function drawnOf(report: Report, against: Against, team: Team | undefined): Drawn {
  const front = frontOf(report, against, team);
  const all = report.rows.map((row, index) => ({
    candidateId: row.candidateId,
    name: row.name,
    index,
    ruledOut: row.ruledOut,
    score: row.score,
    taken: takenOf(row, against, team),
    front: front.includes(row.candidateId),
  }));
  const placed = (m: Mark) => m.score.value !== undefined && m.taken.value !== undefined;
  const currency = (against === "month" ? team?.currency : report.currency) ?? "";
  return {
    marks: all.filter(placed),
    left: all.filter((m) => !placed(m)).map((m) => m.name),
    unit: AGAINST.find((a) => a.value === against)?.label ?? "",
    tick: (value) => (against === "time" ? duration(value) : money(value, currency)),
  };
}
