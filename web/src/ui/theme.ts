import { useSyncExternalStore } from "react";

export type ThemeChoice = "system" | "light" | "dark";

const KEY = "mossbank.theme";
const system = matchMedia("(prefers-color-scheme: dark)");
const listeners = new Set<() => void>();

function choice(): ThemeChoice {
  const stored = localStorage.getItem(KEY);
  return stored === "light" || stored === "dark" ? stored : "system";
}

function apply(): void {
  const dark = choice() === "dark" || (choice() === "system" && system.matches);
  document.documentElement.dataset["theme"] = dark ? "dark" : "light";
  listeners.forEach((listener) => listener());
}

system.addEventListener("change", apply);

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function keep(next: ThemeChoice): void {
  if (next === "system") {
    localStorage.removeItem(KEY);
  } else {
    localStorage.setItem(KEY, next);
  }
  apply();
}

/** Takes over what somebody chose in another browser. */
export function followTheme(chosen: ThemeChoice): void {
  if (chosen !== choice()) {
    keep(chosen);
  }
}

/** The reader's choice of theme, and how to change it. */
export function useTheme(): { theme: ThemeChoice; setTheme: (theme: ThemeChoice) => void } {
  const theme = useSyncExternalStore(subscribe, choice);
  return { theme, setTheme: keep };
}
