import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area, Choice, NumberField } from "../../ui/Field";

type Point = Schemas["KeyPoint"];

type KeyPointsEditorProps = {
  points: Point[];
  files: Schemas["StartingFile"][];
  onChange: (points: Point[], group?: string) => void;
};

const NOWHERE = "";

/** What a right answer must contain or must not do, each with its weight and, where it has one, its place in the code. */
export function KeyPointsEditor({ points, files, onChange }: KeyPointsEditorProps) {
  const add = (stance: Point["stance"]) => onChange([...points, { stance, text: "", weight: 1 }]);
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Key points</legend>
      <p className="mb-1.5 text-sm text-ink-soft">
        Written down before anybody answers, so that every rater has the same idea of a right answer.
      </p>
      <ol className="grid gap-3">
        {points.map((point, i) => (
          <PointFields
            key={i}
            number={i + 1}
            point={point}
            files={files}
            onChange={(next, group) => onChange(points.with(i, next), `${group} ${i}`)}
            onTakeOut={() => onChange(points.toSpliced(i, 1))}
          />
        ))}
      </ol>
      <div className="mt-2 flex gap-2">
        <AddButton onAdd={() => add("MUST_CONTAIN")}>Add what it must contain</AddButton>
        <AddButton onAdd={() => add("MUST_NOT")}>Add what it must not do</AddButton>
      </div>
    </fieldset>
  );
}

type PointFieldsProps = {
  number: number;
  point: Point;
  files: Schemas["StartingFile"][];
  onChange: (next: Point, group: string) => void;
  onTakeOut: () => void;
};

function PointFields({ number, point, files, onChange, onTakeOut }: PointFieldsProps) {
  return (
    <li className="border-l-2 border-edge pl-3">
      <div className="grid gap-2 sm:grid-cols-[9rem_1fr]">
        <Choice
          label={`Key point ${number}: stance`}
          labelHidden
          value={point.stance}
          options={[
            { value: "MUST_CONTAIN", label: "must contain" },
            { value: "MUST_NOT", label: "must not" },
          ]}
          onValue={(stance) => onChange({ ...point, stance }, "stance")}
        />
        <Area
          label={`Key point ${number}`}
          labelHidden
          rows={1}
          maxLength={LIMITS.KeyPoint.text}
          value={point.text}
          onChange={(e) => onChange({ ...point, text: e.target.value }, "text")}
        />
      </div>
      <PointPlace point={point} files={files} onChange={onChange}>
        <Button className="ml-auto" aria-label={`Take out key point ${number}`} onClick={onTakeOut}>
          Take out
        </Button>
      </PointPlace>
    </li>
  );
}

type PointPlaceProps = {
  point: Point;
  files: Schemas["StartingFile"][];
  onChange: (point: Point, group: string) => void;
  children: ReactNode;
};

/** What a key point weighs, and where it is seen. */
function PointPlace({ point, files, onChange, children }: PointPlaceProps) {
  const lines = files.find((f) => f.path === point.file)?.text.split("\n").length;
  const place = (file: string) => {
    const { file: _f, fromLine: _a, toLine: _b, ...rest } = point;
    onChange(file === NOWHERE ? rest : { ...rest, file }, "file");
  };
  const range = (from: number | undefined, to: number | undefined) => {
    const { fromLine: _a, toLine: _b, ...rest } = point;
    const whole = (n: number | undefined) => n !== undefined && Number.isInteger(n) && n >= 1;
    if (from === undefined && to === undefined) {
      onChange(rest, "lines");
    } else if (whole(from ?? to) && whole(to ?? from)) {
      const first = from ?? to ?? 1;
      onChange({ ...rest, fromLine: first, toLine: Math.max(first, to ?? first) }, "lines");
    }
  };
  return (
    <div className="mt-1.5 flex flex-wrap items-end gap-3">
      <NumberField
        label="Weight"
        className="w-20"
        value={point.weight}
        onNumber={(weight) => weight !== undefined && weight > 0 && onChange({ ...point, weight }, "weight")}
      />
      {files.length > 0 && (
        <Choice
          label="Seen in"
          className="w-60"
          value={point.file ?? NOWHERE}
          options={[
            { value: NOWHERE, label: "no place in particular" },
            ...files.map((f) => ({ value: f.path, label: f.path })),
            ...(point.file && !files.some((f) => f.path === point.file)
              ? [{ value: point.file, label: `${point.file} (not there)` }]
              : []),
          ]}
          onValue={place}
        />
      )}
      {point.file !== undefined && (
        <>
          <NumberField
            label="From line"
            className="w-20"
            value={point.fromLine}
            onNumber={(from) => range(from, from === undefined ? undefined : point.toLine)}
          />
          <NumberField
            label={lines ? `To, of ${lines}` : "To line"}
            className="w-20"
            value={point.toLine}
            onNumber={(to) => range(point.fromLine, to)}
          />
        </>
      )}
      {children}
    </div>
  );
}
