import type { FigureLike } from "../../../ui/IntervalRow";

const WIDTH = 46;
const HEIGHT = 8;

type SmallIntervalProps = { figure: FigureLike; from: number; to: number; mark: number; wide?: boolean };

/** A dot with its interval, small; the numbers stand beside it or are said by what it stands in. */
export function SmallInterval({ figure, from, to, mark, wide = false }: SmallIntervalProps) {
  const width = wide ? 2 * WIDTH : WIDTH;
  const x = (value: number) => 2 + ((Math.min(to, Math.max(from, value)) - from) / (to - from)) * (width - 4);
  const y = HEIGHT / 2;
  return (
    <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
      <line x1={2} x2={width - 2} y1={y} y2={y} stroke="var(--rule)" />
      {figure.low !== undefined && figure.high !== undefined && (
        <line x1={x(figure.low)} x2={x(figure.high)} y1={y} y2={y} stroke="var(--ink)" strokeWidth="2" />
      )}
      <line x1={x(mark)} x2={x(mark)} y1={0} y2={HEIGHT} stroke="var(--ochre)" strokeWidth="1.5" />
      {figure.value !== undefined && <circle cx={x(figure.value)} cy={y} r={3} fill="var(--ink)" />}
    </svg>
  );
}
