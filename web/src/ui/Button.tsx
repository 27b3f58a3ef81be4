import type { ButtonHTMLAttributes } from "react";
import { classes } from "./classes";

type Tone = "primary" | "quiet" | "danger";

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & { tone?: Tone };

const TONES: Record<Tone, string> = {
  primary: "border-moss bg-moss text-on-moss hover:brightness-110",
  quiet: "border-edge bg-vellum text-ink hover:border-ink",
  danger: "border-clay bg-clay-wash text-clay hover:border-ink",
};

export const buttonLook = (tone: Tone): string =>
  classes(
    "inline-flex items-center gap-1.5 rounded-leaf border px-3 py-1 font-medium whitespace-nowrap print:hidden",
    "disabled:cursor-not-allowed disabled:opacity-60 aria-disabled:cursor-not-allowed aria-disabled:opacity-60",
    TONES[tone],
  );

export function Button({ tone = "quiet", className, type = "button", ...rest }: ButtonProps) {
  return <button type={type} className={classes(buttonLook(tone), className)} {...rest} />;
}
