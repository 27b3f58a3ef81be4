import { Button } from "./Button";
import { Field } from "./Field";

type LinesProps = {
  legend: string;
  hint?: string;
  /** What one line is called, such as "Constraint". */
  one: string;
  values: string[];
  placeholder?: string;
  onChange: (values: string[], group?: string) => void;
};

/** A list of short texts, one a line; what is emptied or taken out can be undone with the draft's undo. */
export function Lines({ legend, hint, one, values, placeholder, onChange }: LinesProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">{legend}</legend>
      {hint && <p className="mb-1.5 text-sm text-ink-soft">{hint}</p>}
      <ol className="grid gap-1.5">
        {values.map((value, i) => (
          <li key={i} className="flex items-start gap-2">
            <Field
              label={`${one} ${i + 1}`}
              labelHidden
              className="flex-1"
              value={value}
              placeholder={placeholder}
              onChange={(e) => onChange(values.with(i, e.target.value), `${legend} ${i}`)}
            />
            <Button
              aria-label={`Take out ${one.toLowerCase()} ${i + 1}`}
              onClick={() => onChange(values.toSpliced(i, 1))}
            >
              Take out
            </Button>
          </li>
        ))}
      </ol>
      <Button className="mt-1.5" onClick={() => onChange([...values, ""])}>
        Add {/^[aeiou]/i.test(one) ? "an" : "a"} {one.toLowerCase()}
      </Button>
    </fieldset>
  );
}
