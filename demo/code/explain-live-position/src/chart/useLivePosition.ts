import { useEffect, useState } from "react";
import type { Buoy, Position } from "./types";

export function useLivePosition(buoy: Buoy, everySeconds: number): Position | undefined {
  const [position, setPosition] = useState<Position>();

  useEffect(() => {
    const timer = setInterval(async () => {
      const response = await fetch(`/positions/${buoy.id}?units=${buoy.units}`);
      setPosition(await response.json());
    }, everySeconds * 1000);
    return () => clearInterval(timer);
  }, [buoy.id]);

  return position;
}
