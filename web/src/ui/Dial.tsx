import { Slider } from "radix-ui";

type DialProps = {
  label: string;
  value: number;
  from: number;
  to: number;
  step?: number;
  onValue: (value: number) => void;
};

/** A number that is turned, not typed. */
export function Dial({ label, value, from, to, step = 1, onValue }: DialProps) {
  return (
    <div className="grid grid-cols-[10rem_1fr_2.5rem] items-center gap-2">
      <span aria-hidden="true">{label}</span>
      <Slider.Root
        className="relative flex h-5 touch-none items-center select-none"
        min={from}
        max={to}
        step={step}
        value={[value]}
        onValueChange={([next]) => next !== undefined && onValue(next)}
      >
        <Slider.Track className="relative h-0.5 grow bg-edge">
          <Slider.Range className="absolute h-full bg-moss" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block size-4 rotate-45 border-2 border-moss bg-vellum" />
      </Slider.Root>
      <span className="text-right font-semibold tabular-nums">{value}</span>
    </div>
  );
}
