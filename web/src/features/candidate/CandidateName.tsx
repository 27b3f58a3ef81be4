import { ShapeMark, sign } from "../../ui/IntervalRow";

/** A candidate's name with its own shape and pigment, the same on every page. */
export function CandidateName({ name, index }: { name: string; index: number }) {
  const { shape, pigment } = sign(index);
  return (
    <span className="inline-flex items-center gap-1.5 font-medium">
      <svg width="14" height="14" aria-hidden="true" className="shrink-0">
        <ShapeMark shape={shape} x={7} y={7} pigment={pigment} />
      </svg>
      {name}
    </span>
  );
}
