import { useEffect, useState } from "react";
import { Button } from "../../ui/Button";
import { fixed } from "../../ui/format";
import { useKept } from "../../ui/useKept";

type StopwatchProps = {
  /** Under which it goes on when the page is loaded again. */
  name: string;
  /** Told how long it took, in milliseconds. */
  onMeasured: (ms: number) => void;
};

/** Measures how long an answer takes that is asked for elsewhere and pasted here. */
export function Stopwatch({ name, onMeasured }: StopwatchProps) {
  const { chosen, choose } = useKept<{ since: number | null }>(`stopwatch.${name}`);
  const since = chosen.since ?? null;
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (since === null) {
      return undefined;
    }
    const ticking = setInterval(() => setNow(Date.now()), 100);
    return () => clearInterval(ticking);
  }, [since]);
  if (since === null) {
    return (
      <Button
        onClick={() => {
          setNow(Date.now());
          choose({ since: Date.now() });
        }}
      >
        Start the stopwatch
      </Button>
    );
  }
  return (
    <span className="flex items-center gap-3">
      <Button
        onClick={() => {
          onMeasured(Date.now() - since);
          choose({ since: null });
        }}
      >
        Stop
      </Button>
      <span role="timer" className="tabular-nums">
        {fixed(Math.max(0, now - since) / 1000, 1)} s
      </span>
      <Button onClick={() => choose({ since: null })}>Throw it away</Button>
    </span>
  );
}
