import type { Schemas } from "../../api/client";
import { Choice, NumberField } from "../../ui/Field";

type Cap = Schemas["Cap"];
type Price = Schemas["CandidateContent"]["price"];

export function withCap(price: Price, cap: Cap | undefined): Price {
  const { cap: _, ...rest } = price;
  return cap === undefined ? rest : { ...rest, cap };
}

const UNITS: { value: Cap["unit"]; label: string }[] = [
  { value: "PROMPTS", label: "prompts" },
  { value: "TOKENS", label: "tokens, in and out" },
];

const PERIODS: { value: Cap["period"]; label: string }[] = [
  { value: "DAY", label: "a day" },
  { value: "WEEK", label: "a week" },
  { value: "MONTH", label: "a month" },
];

/** The limit that stops a person first, so that a month can be priced. */
export function CapFields({ cap, onCap }: { cap: Cap | undefined; onCap: (cap: Cap | undefined) => void }) {
  return (
    <>
      <NumberField
        label="A cap for each person"
        hint="The one that stops first; empty for none."
        value={cap?.amount}
        onNumber={(amount) =>
          onCap(
            amount === undefined || amount < 0
              ? undefined
              : { unit: "PROMPTS", period: "DAY", ...cap, amount: Math.round(amount) },
          )
        }
      />
      {cap !== undefined && (
        <>
          <Choice label="It counts" value={cap.unit} options={UNITS} onValue={(unit) => onCap({ ...cap, unit })} />
          <Choice label="In" value={cap.period} options={PERIODS} onValue={(period) => onCap({ ...cap, period })} />
        </>
      )}
    </>
  );
}
