import { scaleLinear } from "@visx/scale";
import { Line } from "@visx/shape";
import { classes } from "./classes";
import { fixed } from "./format";

export type FigureLike = {
  value?: number;
  low?: number;
  high?: number;
  undefinedReason?: string;
  noIntervalReason?: string;
};

type Axis = { from: number; to: number; marks: { at: number; label: string }[]; decimals: number };

const WIDTH = 300;
const HEIGHT = 26;
const PAD = 8;

const place = (axis: Axis, value: number): number =>
  scaleLinear<number>({ domain: [axis.from, axis.to], range: [PAD, WIDTH - PAD], clamp: true })(value);

export type Shape = "disc" | "square" | "diamond" | "triangle" | "cross";
const SHAPES: Shape[] = ["disc", "square", "diamond", "triangle", "cross"];
const PIGMENTS = ["var(--tarn)", "var(--ochre)", "var(--heather)", "var(--clay)", "var(--lichen)"];

/** The pigment and shape of the n-th candidate, so that colour never speaks alone. */
export function sign(index: number): { shape: Shape; pigment: string } {
  return { shape: SHAPES[index % SHAPES.length] ?? "disc", pigment: PIGMENTS[index % PIGMENTS.length] ?? "var(--ink)" };
}

export function ShapeMark({ shape, x, y, pigment }: { shape: Shape; x: number; y: number; pigment: string }) {
  const r = 5;
  switch (shape) {
    case "disc":
      return <circle cx={x} cy={y} r={r} fill={pigment} />;
    case "square":
      return <rect x={x - r + 0.5} y={y - r + 0.5} width={2 * r - 1} height={2 * r - 1} fill={pigment} />;
    case "diamond":
      return <path d={`M${x} ${y - r - 1}l${r + 1} ${r + 1}l${-r - 1} ${r + 1}l${-r - 1} ${-r - 1}z`} fill={pigment} />;
    case "triangle":
      return <path d={`M${x} ${y - r - 1}l${r + 1} ${2 * r}h${-2 * r - 2}z`} fill={pigment} />;
    case "cross":
      return (
        <path
          d={`M${x - r} ${y - r}l${2 * r} ${2 * r}M${x + r} ${y - r}l${-2 * r} ${2 * r}`}
          stroke={pigment}
          strokeWidth="3"
        />
      );
  }
}

type IntervalRowProps = {
  figure: FigureLike;
  axis: Axis;
  shape?: Shape;
  pigment?: string;
  /** Drawn dashed where the interval says less than the others. */
  loose?: boolean;
};

/** A dot with its interval on an axis shared by all rows. The numbers stand beside it, so it is hidden from readers aloud. */
export function IntervalRow({ figure, axis, shape = "disc", pigment = "var(--ink)", loose = false }: IntervalRowProps) {
  const y = HEIGHT / 2;
  const at = (value: number) => ({ x: place(axis, value), y });
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      aria-hidden="true"
      className="block max-w-full"
    >
      <Line from={at(axis.from)} to={at(axis.to)} stroke="var(--rule)" />
      {axis.marks.map((mark) => (
        <Line
          key={mark.label}
          from={{ x: place(axis, mark.at), y: 0 }}
          to={{ x: place(axis, mark.at), y: HEIGHT }}
          stroke="var(--ochre)"
          strokeWidth="1.5"
          strokeDasharray="4 2"
        />
      ))}
      {figure.low !== undefined && figure.high !== undefined && (
        <Line
          from={at(figure.low)}
          to={at(figure.high)}
          stroke={pigment}
          strokeWidth="3"
          strokeDasharray={loose ? "3 3" : undefined}
        />
      )}
      {figure.value !== undefined && <ShapeMark shape={shape} x={place(axis, figure.value)} y={y} pigment={pigment} />}
    </svg>
  );
}

/** Closer than this, two labels would run into each other. */
const LABEL_ROOM = WIDTH / 5;

/** Which side of its mark a label stands on, so that it neither leaves the picture nor runs into its neighbour. */
function anchor(axis: Axis, at: number): "start" | "middle" | "end" {
  const x = place(axis, at);
  const others = axis.marks.filter((m) => m.at !== at).map((m) => place(axis, m.at) - x);
  if (x > WIDTH - LABEL_ROOM || others.some((d) => d > 0 && d < LABEL_ROOM)) {
    return "end";
  }
  return x < LABEL_ROOM || others.some((d) => d < 0 && d > -LABEL_ROOM) ? "start" : "middle";
}

const SHIFTS = { start: "-translate-x-1", middle: "-translate-x-1/2", end: "translate-x-[calc(-100%+0.25rem)]" };

/** The axis above such rows: its ends, and what its marks mean. Not in the picture, whose letters would shrink with it. */
export function IntervalAxis({ axis }: { axis: Axis }) {
  const spoken = [
    `Picture of the interval, from ${fixed(axis.from, axis.decimals)} to ${fixed(axis.to, axis.decimals)}`,
    ...axis.marks.map((mark) => mark.label),
  ].join(", ");
  return (
    <>
      <span className="sr-only">{spoken}</span>
      <span
        aria-hidden="true"
        className="relative block h-9 max-w-full text-xs font-normal"
        style={{ width: `${WIDTH}px` }}
      >
        <span className="absolute bottom-0 left-1.5">{fixed(axis.from, axis.decimals)}</span>
        <span className="absolute right-1.5 bottom-0">{fixed(axis.to, axis.decimals)}</span>
        {axis.marks.map((mark) => (
          <span
            key={mark.label}
            className={classes("absolute top-0 whitespace-nowrap text-ochre", SHIFTS[anchor(axis, mark.at)])}
            style={{ left: `${(place(axis, mark.at) / WIDTH) * 100}%` }}
          >
            {mark.label}
          </span>
        ))}
      </span>
    </>
  );
}

export type { Axis };

/** A figure in words and numbers: value, interval, or why there is none. */
export function FigureText({ figure, decimals }: { figure: FigureLike; decimals: number }) {
  if (figure.value === undefined) {
    return <span className="text-ink-soft">none: {figure.undefinedReason}</span>;
  }
  return (
    <span className="whitespace-nowrap">
      <strong className="font-semibold">{fixed(figure.value, decimals)}</strong>{" "}
      {figure.low !== undefined && figure.high !== undefined ? (
        <span className="text-ink-soft">
          {fixed(figure.low, decimals)} to {fixed(figure.high, decimals)}
        </span>
      ) : (
        figure.noIntervalReason && <span className="text-ink-soft">no interval: {figure.noIntervalReason}</span>
      )}
    </span>
  );
}
