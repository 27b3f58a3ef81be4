import { scaleLinear } from "@visx/scale";
import { Line } from "@visx/shape";
import type { FigureLike } from "../../../ui/IntervalRow";

const WIDTH = 46;
const HEIGHT = 8;
const PAD = 2;

type SmallIntervalProps = { figure: FigureLike; from: number; to: number; mark?: number; wide?: boolean };

/** A dot with its interval, small; the numbers stand beside it or are said by what it stands in. */
export function SmallInterval({ figure, from, to, mark, wide = false }: SmallIntervalProps) {
  const width = wide ? 2 * WIDTH : WIDTH;
  const x = scaleLinear<number>({ domain: [from, to], range: [PAD, width - PAD], clamp: true });
  const y = HEIGHT / 2;
  const at = (value: number) => ({ x: x(value), y });
  return (
    <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
      <Line from={at(from)} to={at(to)} stroke="var(--rule)" />
      {figure.low !== undefined && figure.high !== undefined && (
        <Line from={at(figure.low)} to={at(figure.high)} stroke="var(--ink)" strokeWidth="2" />
      )}
      {mark !== undefined && (
        <Line from={{ x: x(mark), y: 0 }} to={{ x: x(mark), y: HEIGHT }} stroke="var(--ochre)" strokeWidth="1.5" />
      )}
      {figure.value !== undefined && <circle cx={x(figure.value)} cy={y} r={3} fill="var(--ink)" />}
    </svg>
  );
}
