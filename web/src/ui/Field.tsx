import {
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useId,
  useState,
} from "react";
import { classes } from "./classes";

type Around = {
  label: string;
  hint?: string | undefined;
  error?: string | undefined;
  /** Whether the label is for readers aloud only, where a table's head says it to the eye. */
  labelHidden?: boolean;
};

type FrameProps = Around & {
  className?: string | undefined;
  children: (ids: { id: string; invalid: boolean; describedBy: string; look: string }) => ReactNode;
};

/** A label with its field, hint and error, all read out together. */
function Frame({ label, hint, error, labelHidden = false, className, children }: FrameProps) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className={labelHidden ? "sr-only" : "mb-1 block font-medium"}>
        {label}
      </label>
      {children({
        id,
        invalid: error !== undefined,
        describedBy: `${id}-hint ${id}-error`,
        look: classes("w-full rounded-leaf border bg-vellum px-2.5 py-1.5", error ? "border-clay" : "border-edge"),
      })}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-sm text-ink-soft">
          {hint}
        </p>
      )}
      <p id={`${id}-error`} className={error ? "mt-1 text-sm text-clay" : undefined}>
        {error}
      </p>
    </div>
  );
}

type FieldProps = InputHTMLAttributes<HTMLInputElement> & Around;

/** A labelled input with its hint and its error, both read out with it. */
export function Field({ label, hint, error, labelHidden, className, ...rest }: FieldProps) {
  return (
    <Frame label={label} hint={hint} error={error} labelHidden={labelHidden ?? false} className={className}>
      {({ id, invalid, describedBy, look }) => (
        <input id={id} aria-invalid={invalid} aria-describedby={describedBy} className={look} {...rest} />
      )}
    </Frame>
  );
}

type AreaProps = TextareaHTMLAttributes<HTMLTextAreaElement> & Around & { code?: boolean };

/** A labelled text over several lines, as high as what stands in it. */
export function Area({ label, hint, error, labelHidden, className, code = false, ...rest }: AreaProps) {
  return (
    <Frame label={label} hint={hint} error={error} labelHidden={labelHidden ?? false} className={className}>
      {({ id, invalid, describedBy, look }) => (
        <textarea
          id={id}
          aria-invalid={invalid}
          aria-describedby={describedBy}
          spellCheck={!code}
          className={classes(look, "field-sizing-content min-h-16", code && "font-mono text-sm leading-snug")}
          {...rest}
        />
      )}
    </Frame>
  );
}

type ChoiceProps<V extends string> = Omit<SelectHTMLAttributes<HTMLSelectElement>, "value" | "onChange"> &
  Around & {
    value: V;
    options: { value: V; label: string }[];
    onValue: (value: V) => void;
  };

/** A labelled choice of one. The system's own list: it works everywhere, by keyboard and read aloud. */
export function Choice<V extends string>({
  label,
  hint,
  error,
  labelHidden,
  className,
  value,
  options,
  onValue,
  ...rest
}: ChoiceProps<V>) {
  return (
    <Frame label={label} hint={hint} error={error} labelHidden={labelHidden ?? false} className={className}>
      {({ id, invalid, describedBy, look }) => (
        <select
          id={id}
          aria-invalid={invalid}
          aria-describedby={describedBy}
          className={look}
          value={value}
          onChange={(e) => {
            const chosen = options.find((o) => o.value === e.target.value);
            if (chosen) {
              onValue(chosen.value);
            }
          }}
          {...rest}
        >
          {options.map((o) => (
            <option key={o.value} value={o.value}>
              {o.label}
            </option>
          ))}
        </select>
      )}
    </Frame>
  );
}

type NumberFieldProps = Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "onChange" | "type"> &
  Around & {
    value: number | undefined;
    /** Called with a number, or with nothing where the field is emptied. */
    onNumber: (value: number | undefined) => void;
  };

/** A labelled number. What is no number yet stays in the field and is not handed on. */
export function NumberField({
  label,
  hint,
  error,
  labelHidden,
  className,
  value,
  onNumber,
  ...rest
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string>();
  const wrong = typed !== undefined && typed.trim() !== "" && !Number.isFinite(Number(typed));
  return (
    <Frame
      label={label}
      hint={hint}
      error={wrong ? "must be a number" : error}
      labelHidden={labelHidden ?? false}
      className={className}
    >
      {({ id, invalid, describedBy, look }) => (
        <input
          id={id}
          inputMode="decimal"
          aria-invalid={invalid}
          aria-describedby={describedBy}
          className={classes(look, "tabular-nums")}
          value={typed ?? (value === undefined ? "" : String(value))}
          onChange={(e) => {
            setTyped(e.target.value);
            const text = e.target.value.trim();
            if (text === "") {
              onNumber(undefined);
            } else if (Number.isFinite(Number(text))) {
              onNumber(Number(text));
            }
          }}
          onBlur={() => setTyped(undefined)}
          {...rest}
        />
      )}
    </Frame>
  );
}

type TickProps = Omit<InputHTMLAttributes<HTMLInputElement>, "type" | "onChange"> & {
  label: ReactNode;
  hint?: string;
  onTick: (ticked: boolean) => void;
};

/** A box to tick, with its words beside it. */
export function Tick({ label, hint, onTick, className, ...rest }: TickProps) {
  const id = useId();
  return (
    <div className={classes("flex gap-2", className)}>
      <input
        id={id}
        type="checkbox"
        aria-describedby={hint ? `${id}-hint` : undefined}
        className="mt-1 size-4 shrink-0 accent-moss"
        onChange={(e) => onTick(e.target.checked)}
        {...rest}
      />
      <div>
        <label htmlFor={id}>{label}</label>
        {hint && (
          <p id={`${id}-hint`} className="text-sm text-ink-soft">
            {hint}
          </p>
        )}
      </div>
    </div>
  );
}
