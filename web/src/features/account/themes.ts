import type { ThemeChoice } from "../../ui/theme";

/** The looks there are, by their names. */
export const THEMES: { value: ThemeChoice; label: string }[] = [
  { value: "system", label: "As the system" },
  { value: "light", label: "Paper (light)" },
  { value: "dark", label: "Peat (dark)" },
];
