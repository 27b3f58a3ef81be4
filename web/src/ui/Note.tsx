import type { ReactNode } from "react";
import { classes } from "./classes";

type Tone = "info" | "good" | "caution" | "trouble";

const TONES: Record<Tone, string> = {
  info: "border-tarn bg-tarn-wash",
  good: "border-lichen bg-lichen-wash",
  caution: "border-ochre bg-ochre-wash",
  trouble: "border-clay bg-clay-wash",
};

type NoteProps = { tone: Tone; children: ReactNode; role?: "status" | "alert"; className?: string };

/** A remark set off from the text; the words carry it, the colour only helps. */
export function Note({ tone, children, role, className }: NoteProps) {
  return (
    <div role={role} className={classes("border-l-4 px-3 py-2 text-ink", TONES[tone], className)}>
      {children}
    </div>
  );
}
