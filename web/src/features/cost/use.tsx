import type { Schemas } from "../../api/client";
import { NumberField } from "../../ui/Field";

export type Use = Schemas["TeamUse"];

const LIMITS = {
  people: { from: 1, to: 100_000, whole: true },
  tasksPerDay: { from: 0.01, to: 10_000, whole: false },
  daysPerMonth: { from: 1, to: 31, whole: true },
} as const;

const fits = (field: keyof Use, value: number): boolean => {
  const { from, to, whole } = LIMITS[field];
  return value >= from && value <= to && (!whole || Number.isInteger(value));
};

/** The use that an address asks about; nothing unless all of it is there and can be meant. */
export function addressedUse(address: URLSearchParams): Use | undefined {
  const one = (name: string, field: keyof Use): number | undefined => {
    const text = address.get(name);
    const value = text === null || text.trim() === "" ? NaN : Number(text);
    return fits(field, value) ? value : undefined;
  };
  const people = one("people", "people");
  const tasksPerDay = one("tasks", "tasksPerDay");
  const daysPerMonth = one("days", "daysPerMonth");
  return people === undefined || tasksPerDay === undefined || daysPerMonth === undefined
    ? undefined
    : { people, tasksPerDay, daysPerMonth };
}

/** Writes it there; without one, takes it out. */
export function withUse(address: URLSearchParams, use: Use | undefined): URLSearchParams {
  const next = new URLSearchParams(address);
  const put = (name: string, value: number | undefined) =>
    value === undefined ? next.delete(name) : next.set(name, String(value));
  put("people", use?.people);
  put("tasks", use?.tasksPerDay);
  put("days", use?.daysPerMonth);
  return next;
}

/** How a team would use it; what cannot be meant is not handed on. */
export function UseFields({ use, onUse }: { use: Use; onUse: (use: Use) => void }) {
  const set = (field: keyof Use) => (value: number | undefined) =>
    value !== undefined && fits(field, value) && onUse({ ...use, [field]: value });
  return (
    <div className="grid max-w-xl grid-cols-1 items-end gap-3 sm:grid-cols-3">
      <NumberField label="People" value={use.people} onNumber={set("people")} />
      <NumberField label="Tasks a person and day" value={use.tasksPerDay} onNumber={set("tasksPerDay")} />
      <NumberField label="Working days a month" value={use.daysPerMonth} onNumber={set("daysPerMonth")} />
    </div>
  );
}
