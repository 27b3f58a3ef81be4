import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { myReadings, useSayBack } from "./api";
import { StartingFiles } from "./StartingFiles";

/** A prompt that somebody was asked to read back: what do you think is asked? */
export function ReadingPage() {
  const id = useParams()["readBackId"] ?? "";
  const readings = useQuery(myReadings());
  useTitle("Read a prompt back");
  return (
    <main className="mx-auto w-full max-w-4xl px-6 py-8">
      <Query of={readings} what="the prompt">
        {(all) => {
          const reading = all.find((r) => r.id === id);
          return reading ? (
            <Reading key={reading.id} reading={reading} />
          ) : (
            <p>
              This prompt was not given to you to read. <Link to="/">Go to your sheets and studies</Link>.
            </p>
          );
        }}
      </Query>
    </main>
  );
}

function Reading({ reading }: { reading: Schemas["Reading"] }) {
  const sayBack = useSayBack();
  const [answer, setAnswer] = useState(reading.answer ?? "");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    sayBack.mutate({ readBackId: reading.id, answer });
  };
  return (
    <>
      <p className="text-sm text-ink-soft">{reading.studyTitle}: a prompt to read back</p>
      <h1 className="mt-1">{reading.title}</h1>
      <p className="text-sm text-ink-soft">{reading.language}</p>
      <Markdown text={reading.request} below="page" className="mt-4" />
      {reading.constraints.length > 0 && (
        <ul className="mt-3 list-disc pl-5">
          {reading.constraints.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      {reading.startingFiles.length > 0 && (
        <div className="mt-4">
          <h2 className="mb-1">Starting code</h2>
          <StartingFiles files={reading.startingFiles} />
        </div>
      )}
      <form onSubmit={submit} className="mt-6 border-t border-rule pt-4">
        <Area
          label="What do you think is asked?"
          hint="In your own words: what would a right answer contain, and what would you have to assume?"
          required
          maxLength={LIMITS.SayBack.answer}
          disabled={!reading.open}
          value={answer}
          onChange={(e) => setAnswer(e.target.value)}
        />
        {sayBack.isError && <Note tone="trouble">{sayBack.error.message}</Note>}
        {reading.open ? (
          <p className="mt-3 flex items-center gap-3">
            <Button type="submit" tone="primary" disabled={sayBack.isPending || answer.trim() === ""}>
              Send it to the lead
            </Button>
            <span role="status">{sayBack.isSuccess && "Sent. Thank you."}</span>
          </p>
        ) : (
          <p className="mt-3 text-ink-soft">The round is open; readings stay as they are.</p>
        )}
      </form>
    </>
  );
}
