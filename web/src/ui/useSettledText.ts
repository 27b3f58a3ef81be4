import { useEffect, useState } from "react";

/** How long somebody has to stop typing before what they typed is asked for, in milliseconds. */
const STILL = 250;

/** What is typed, once it has stood still for a moment. */
export function useSettledText(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), STILL);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}
