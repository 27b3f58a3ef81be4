/** Numbers as they stand in tables: fixed decimals, a real minus sign. */
export function fixed(value: number, decimals: number): string {
  return value.toFixed(decimals).replace("-", "−");
}

export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

let zone: string | undefined;

/** In which zone times are shown from now on, by its IANA name; the browser's own where none is named. */
export function showTimesIn(name: string | undefined): void {
  zone = name;
}

/** A moment in the reader's own zone. */
export function moment(iso: string): string {
  return new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short", timeZone: zone });
}

export function day(iso: string): string {
  return new Date(iso).toLocaleDateString("en-GB", { dateStyle: "medium", timeZone: zone });
}

/** The time of day alone. */
export function clock(iso: string): string {
  return new Date(iso).toLocaleTimeString("en-GB", { timeStyle: "medium", timeZone: zone });
}

/** Milliseconds as seconds or minutes. */
export function duration(ms: number): string {
  if (ms < 10_000) {
    return `${(ms / 1000).toFixed(1)} s`;
  }
  return ms < 120_000 ? `${Math.round(ms / 1000)} s` : `${Math.round(ms / 60_000)} min`;
}

/** An amount with as many decimals as a small one needs. */
export function money(amount: number, currency: string): string {
  const digits = amount !== 0 && Math.abs(amount) < 1 ? 4 : 2;
  return `${amount.toFixed(digits)} ${currency}`;
}

export function count(n: number, one: string, many: string): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** One line or several, by their numbers. */
export function lineSpan(from: number, to: number): string {
  return from === to ? `line ${from}` : `lines ${from} to ${to}`;
}

/** A share of resamples or made-up studies: they cannot show that something always or never happens. */
export function chance(share: number): string {
  if (share >= 0.995) {
    return "over 99 %";
  }
  return share < 0.005 ? "under 1 %" : percent(share);
}
