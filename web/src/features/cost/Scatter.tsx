import { scaleLinear } from "@visx/scale";
import { Line, LinePath } from "@visx/shape";
import type { Schemas } from "../../api/client";
import { ShapeMark, sign } from "../../ui/IntervalRow";
import { Picture } from "../../ui/Picture";
import type { Drawn, Mark } from "./measures";

const WIDTH = 860;
const HEIGHT = 380;
const PAD = { left: 56, right: 120, top: 14, bottom: 44 };
const TICKS = 6;
/** Room beside the outermost marks, as a share of what lies between them. */
const ROOM = 0.06;

type Scale = ReturnType<typeof scaleLinear<number>>;

/** From the lowest to the highest, with room; within bounds where there are some. */
function reach(values: number[], from: number, to: number): [number, number] {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const room = (high - low) * ROOM || Math.abs(high) * ROOM || 1;
  return [Math.max(from, low - room), Math.min(to, high + room)];
}

const known = (values: (number | undefined)[]) => values.filter((v) => v !== undefined);

type ScatterProps = {
  drawn: Drawn;
  /** What each prompt came to, where it is asked for. */
  dots: { candidateId: string; taken: number; score: number }[];
  rows: Schemas["CostReport"]["rows"];
};

/** Candidates by what they take and how they stand, with their intervals, and a line through those whom nobody outdoes. */
export function Scatter({ drawn, dots, rows }: ScatterProps) {
  const { marks } = drawn;
  const xs = [...marks.flatMap((m) => known([m.taken.value, m.taken.low, m.taken.high])), ...dots.map((d) => d.taken)];
  const ys = [...marks.flatMap((m) => known([m.score.value, m.score.low, m.score.high])), ...dots.map((d) => d.score)];
  const x = scaleLinear<number>({ domain: reach([0, ...xs], 0, Infinity), range: [PAD.left, WIDTH - PAD.right] });
  const y = scaleLinear<number>({ domain: reach(ys, 0, 100), range: [HEIGHT - PAD.bottom, PAD.top] });
  return (
    <Picture
      label={`Score against ${drawn.unit}; the same numbers stand in the table below`}
      width={WIDTH}
      height={HEIGHT}
      name={`score-against-${drawn.unit.replaceAll(" ", "-")}`}
    >
      <Axes x={x} y={y} drawn={drawn} />
      <Front marks={marks} x={x} y={y} />
      {dots.map((d, i) => (
        <g key={i} transform={`translate(${x(d.taken)} ${y(d.score)}) scale(0.45)`} opacity={0.55}>
          <ShapeMark {...sign(rows.findIndex((r) => r.candidateId === d.candidateId))} x={0} y={0} />
        </g>
      ))}
      {marks.map((mark) => (
        <Placed key={mark.candidateId} mark={mark} x={x} y={y} />
      ))}
    </Picture>
  );
}

function Axes({ x, y, drawn }: { x: Scale; y: Scale; drawn: Drawn }) {
  const bottom = HEIGHT - PAD.bottom;
  return (
    <g fontSize="12" fill="var(--ink-soft)">
      {y.ticks(TICKS).map((t) => (
        <g key={t}>
          <Line from={{ x: PAD.left, y: y(t) }} to={{ x: WIDTH - PAD.right, y: y(t) }} stroke="var(--rule)" />
          <text x={PAD.left - 8} y={y(t) + 4} textAnchor="end">
            {t}
          </text>
        </g>
      ))}
      {x.ticks(TICKS).map((t) => (
        <g key={t}>
          <Line from={{ x: x(t), y: bottom }} to={{ x: x(t), y: bottom + 4 }} stroke="var(--edge)" />
          <text x={x(t)} y={bottom + 18} textAnchor="middle">
            {drawn.tick(t)}
          </text>
        </g>
      ))}
      <Line from={{ x: PAD.left, y: bottom }} to={{ x: WIDTH - PAD.right, y: bottom }} stroke="var(--edge)" />
      <text x={WIDTH - PAD.right} y={HEIGHT - 6} textAnchor="end">
        {drawn.unit}
      </text>
      <text x={14} y={PAD.top} transform={`rotate(-90 14 ${PAD.top})`} textAnchor="end">
        score of 100
      </text>
    </g>
  );
}

/** Goes from the cheapest to the best of those whom nobody outdoes. */
function Front({ marks, x, y }: { marks: Mark[]; x: Scale; y: Scale }) {
  const front = marks.filter((m) => m.front).sort((a, b) => (a.taken.value ?? 0) - (b.taken.value ?? 0));
  return (
    <LinePath
      data={front}
      x={(m) => x(m.taken.value ?? 0)}
      y={(m) => y(m.score.value ?? 0)}
      stroke="var(--heather)"
      strokeWidth={1.5}
      strokeDasharray="6 4"
      fill="none"
    />
  );
}

function Placed({ mark, x, y }: { mark: Mark; x: Scale; y: Scale }) {
  const { shape, pigment } = sign(mark.index);
  const at = { x: x(mark.taken.value ?? 0), y: y(mark.score.value ?? 0) };
  const { score, taken } = mark;
  return (
    <g opacity={mark.ruledOut ? 0.6 : 1}>
      {score.low !== undefined && score.high !== undefined && (
        <Line from={{ x: at.x, y: y(score.low) }} to={{ x: at.x, y: y(score.high) }} stroke={pigment} strokeWidth={2} />
      )}
      {taken.low !== undefined && taken.high !== undefined && (
        <Line
          from={{ x: x(Math.max(0, taken.low)), y: at.y }}
          to={{ x: x(taken.high), y: at.y }}
          stroke={pigment}
          strokeWidth={2}
        />
      )}
      <ShapeMark shape={shape} pigment={pigment} x={at.x} y={at.y} />
      {mark.ruledOut && (
        <Line
          from={{ x: at.x - 11, y: at.y + 11 }}
          to={{ x: at.x + 11, y: at.y - 11 }}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      <text x={at.x + 10} y={at.y - 8} fontSize="13" fill="var(--ink)">
        {mark.name.length > 22 ? `${mark.name.slice(0, 21)}…` : mark.name}
        {mark.ruledOut && " (ruled out)"}
      </text>
    </g>
  );
}
