import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { DECIDERS, DECIDERS_IN_ORDER, SIGNS } from "./words";

type Consideration = Schemas["Consideration"];

type ConsiderationsProps = {
  considerations: Consideration[];
  onChange: (considerations: Consideration[], group?: string) => void;
};

/** Facts that no grade covers. */
export function Considerations({ considerations, onChange }: ConsiderationsProps) {
  return (
    <fieldset className="mt-5">
      <legend className="mb-1 font-medium">Considerations</legend>
      <p className="mb-1.5 text-sm text-ink-soft">
        Facts that no grade covers: usage caps, where code is sent, image input, licence. One that rules a candidate out
        keeps it from being recommended, whatever its grades. What is named of one candidate is asked of all: a blank is
        shown as one.
      </p>
      <ol className="grid gap-1.5">
        {considerations.map((fact, i) => (
          <li key={i} className="grid grid-cols-1 sm:grid-cols-[10rem_12rem_1fr_auto] gap-2">
            <Choice
              label={`Sign of consideration ${i + 1}`}
              labelHidden
              value={fact.sign}
              options={(["FOR", "AGAINST", "RULES_OUT"] as const).map((sign) => ({ value: sign, label: SIGNS[sign] }))}
              onValue={(sign) => onChange(considerations.with(i, { ...fact, sign }))}
            />
            <Choice
              label={`What consideration ${i + 1} is about`}
              labelHidden
              value={fact.about ?? ""}
              options={[
                { value: "", label: "something else" },
                ...DECIDERS_IN_ORDER.map((about) => ({ value: about, label: DECIDERS[about] })),
              ]}
              onValue={(about) => onChange(considerations.with(i, withAbout(fact, about)))}
            />
            <Field
              label={`Consideration ${i + 1}`}
              labelHidden
              maxLength={LIMITS.Consideration.text}
              value={fact.text}
              onChange={(e) => onChange(considerations.with(i, { ...fact, text: e.target.value }), `fact ${i}`)}
            />
            <Button
              aria-label={`Take out consideration ${i + 1}`}
              onClick={() => onChange(considerations.toSpliced(i, 1))}
            >
              Take out
            </Button>
          </li>
        ))}
      </ol>
      <AddButton className="mt-1.5" onAdd={() => onChange([...considerations, { sign: "FOR", text: "" }])}>
        Add a consideration
      </AddButton>
    </fieldset>
  );
}

function withAbout(fact: Consideration, about: Consideration["about"] | ""): Consideration {
  const { about: _, ...rest } = fact;
  return about === "" || about === undefined ? rest : { ...rest, about };
}
