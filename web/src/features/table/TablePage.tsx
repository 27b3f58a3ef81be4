import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { at } from "../../api/base";
import { ApiProblem, type Schemas, upload } from "../../api/client";
import { Button } from "../../ui/Button";
import { FaultList } from "../../ui/FaultList";
import { Choice } from "../../ui/Field";
import { FilePicker } from "../../ui/FilePicker";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { TableFigures } from "./TableFigures";

type Scale = "NOMINAL" | "ORDINAL" | "INTERVAL";

const SCALES: { value: Scale; label: string }[] = [
  { value: "NOMINAL", label: "names without an order" },
  { value: "ORDINAL", label: "levels in an order" },
  { value: "INTERVAL", label: "numbers whose distances count" },
];

/** Published tables, whose figures stand in the papers. */
const EXAMPLES = [
  {
    file: "four-observers.csv",
    scale: "INTERVAL" as const,
    name: "four observers, twelve units, with gaps (Krippendorff 2011)",
  },
  { file: "six-targets.csv", scale: "INTERVAL" as const, name: "six targets, four judges (Shrout & Fleiss 1979)" },
];

/** Agreement in a table of one's own. */
export function TablePage() {
  const [scale, setScale] = useState<Scale>("ORDINAL");
  const [file, setFile] = useState<File>();
  const figures = useMutation({
    mutationFn: (sent: { file: File; scale: Scale }) =>
      upload<Schemas["TableAgreementView"]>(`/api/tables/agreement?scale=${sent.scale}`, sent.file),
  });
  const example = useMutation({
    mutationFn: async (one: (typeof EXAMPLES)[number]) =>
      new File([await (await fetch(at(`/examples/${one.file}`))).text()], one.file, { type: "text/csv" }),
    onSuccess: (loaded, one) => take(loaded, one.scale),
  });
  const take = (chosen: File, by: Scale) => {
    setFile(chosen);
    setScale(by);
    figures.mutate({ file: chosen, scale: by });
  };
  useTitle("Try your own table");
  return (
    <main className="mx-auto w-full max-w-5xl px-6 py-8">
      <p className="text-sm">
        <Link to="/">Your studies</Link>
      </p>
      <h1 className="mt-1">Try your own table</h1>
      <p className="mt-2 mb-5 max-w-2xl">
        How far do raters agree in a table of yours? A row for each value with the columns unit, rater and value; or a
        row for each unit and a column for each rater. Nothing is kept on the server.
      </p>
      <div className="grid gap-5 md:grid-cols-[18rem_1fr]">
        <Choice
          label="Values are"
          value={scale}
          options={SCALES}
          onValue={(next) => (file ? take(file, next) : setScale(next))}
        />
        <FilePicker
          label={
            figures.isPending
              ? "Working it out …"
              : file
                ? `Another table than ${file.name}`
                : "Drop a CSV file here, or choose it"
          }
          accept=".csv,text/csv"
          busy={figures.isPending}
          onFile={(chosen) => take(chosen, scale)}
        />
      </div>
      <Examples onChoose={(one) => example.mutate(one)} />
      {figures.isError && <Refusal error={figures.error} />}
      {figures.data && file && <Result figures={figures.data} name={file.name} scale={scale} />}
    </main>
  );
}

type ExamplesProps = { onChoose: (example: (typeof EXAMPLES)[number]) => void };

function Examples({ onChoose }: ExamplesProps) {
  return (
    <p className="mt-3 flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm">
      Or see an example:
      {EXAMPLES.map((one) => (
        <Button key={one.file} onClick={() => onChoose(one)}>
          {one.name}
        </Button>
      ))}
    </p>
  );
}

function Refusal({ error }: { error: Error }) {
  return (
    <section className="mt-6">
      <Note tone="trouble" role="alert">
        {error.message}
      </Note>
      <FaultList caption="Faults in the table" faults={error instanceof ApiProblem ? error.faults : []} />
    </section>
  );
}

type ResultProps = { figures: Schemas["TableAgreementView"]; name: string; scale: Scale };

function Result({ figures, name, scale }: ResultProps) {
  return (
    <section className="mt-6" aria-label="Agreement">
      <p className="flex flex-wrap items-baseline gap-3" role="status">
        <span className="font-serif text-lg">
          {count(figures.values, "value", "values")} of {count(figures.raters.length, "rater", "raters")} on{" "}
          {count(figures.units, "unit", "units")}, at {count(figures.levels.length, "level", "levels")}.
        </span>
        <Button className="ml-auto" onClick={() => keep({ table: name, scale, ...figures }, name)}>
          Keep the result as a file
        </Button>
      </p>
      <TableFigures figures={figures} />
    </section>
  );
}

/** The figures as JSON, with the name of the table that they are of. */
function keep(result: object, name: string) {
  const address = URL.createObjectURL(new Blob([JSON.stringify(result, null, 2)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = `agreement in ${name.replace(/\.csv$/i, "")}.json`;
  link.click();
  URL.revokeObjectURL(address);
}
