import { scaleBand, scaleLinear } from "@visx/scale";
import { Line } from "@visx/shape";
import type { Schemas } from "../../api/client";
import { ShapeMark, sign } from "../../ui/IntervalRow";
import { Picture } from "../../ui/Picture";

type Report = Schemas["RecommendationReport"];

const WIDTH = 760;
const ROW = 34;
const PAD = { left: 170, right: 60, top: 12, bottom: 34 };
const LONGEST = 20;

/** The standings as a picture to take along; the table holds the same numbers. */
export function StandingPicture({ report }: { report: Report }) {
  const rows = report.overall.filter((s) => s.adjusted.value !== undefined);
  if (rows.length === 0) {
    return null;
  }
  const height = PAD.top + ROW * rows.length + PAD.bottom;
  const x = scaleLinear<number>({ domain: [0, 100], range: [PAD.left, WIDTH - PAD.right] });
  const y = scaleBand<string>({
    domain: rows.map((s) => s.candidateId),
    range: [PAD.top, height - PAD.bottom],
  });
  return (
    <Picture
      label="Standings with their intervals; the same numbers stand in the table"
      width={WIDTH}
      height={height}
      name="standings"
    >
      <g fontSize="12" fill="var(--ink-soft)">
        {x.ticks(5).map((t) => (
          <g key={t}>
            <Line from={{ x: x(t), y: PAD.top }} to={{ x: x(t), y: height - PAD.bottom }} stroke="var(--rule)" />
            <text x={x(t)} y={height - PAD.bottom + 18} textAnchor="middle">
              {t}
            </text>
          </g>
        ))}
      </g>
      {rows.map((standing) => (
        <Standing
          key={standing.candidateId}
          report={report}
          standing={standing}
          x={x}
          y={(y(standing.candidateId) ?? 0) + ROW / 2}
        />
      ))}
    </Picture>
  );
}

type StandingProps = {
  report: Report;
  standing: Report["overall"][number];
  x: (value: number) => number;
  y: number;
};

function Standing({ report, standing: { candidateId, adjusted }, x, y }: StandingProps) {
  const index = report.candidates.findIndex((c) => c.id === candidateId);
  const { shape, pigment } = sign(index);
  const name = report.candidates[index]?.name ?? "";
  return (
    <>
      <text x={PAD.left - 14} y={y + 5} textAnchor="end" fontSize="14" fill="var(--ink)">
        {name.length > LONGEST ? `${name.slice(0, LONGEST - 1)}…` : name}
      </text>
      {adjusted.low !== undefined && adjusted.high !== undefined && (
        <Line from={{ x: x(adjusted.low), y }} to={{ x: x(adjusted.high), y }} stroke={pigment} strokeWidth={3} />
      )}
      <ShapeMark shape={shape} pigment={pigment} x={x(adjusted.value ?? 0)} y={y} />
      <text x={WIDTH - PAD.right + 14} y={y + 5} fontSize="13" fill="var(--ink)">
        {adjusted.value?.toFixed(1)}
      </text>
    </>
  );
}
