import { useQuery } from "@tanstack/react-query";
import { type FormEvent } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { Markdown } from "../../ui/Markdown";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";
import { useTitle } from "../../ui/useTitle";
import { GradedAnswer } from "../desk/reading";
import { KeyPoints } from "../prompt";
import { codeOfSplit, lookAt, useGiveLook } from "./api";
import { LevelChoice } from "./LevelChoice";

type Look = Schemas["BlindLook"];

const NO_REMARKS: never[] = [];

/** One answer on one criterion, for somebody who sees nobody's grades. */
export function LookPage() {
  const splitId = useParams()["splitId"] ?? "";
  const look = useQuery(lookAt(splitId));
  useTitle("A blind look");
  return (
    <main className="mx-auto w-full max-w-[90rem] px-4 py-4 sm:px-6">
      <Query of={look} what="the answer">
        {(page) => (
          <>
            <p className="text-sm text-ink-soft">{page.studyTitle}: a look at one answer</p>
            <h1 className="[overflow-wrap:anywhere]">
              {page.prompt.title}, {page.criterion.name.toLowerCase()}
            </h1>
            <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(22rem,28rem)]">
              <section className="min-w-0" aria-label="What is to be graded">
                <Markdown text={page.prompt.request} below="section" className="mb-4 border-b border-rule pb-3" />
                <h2>The answer</h2>
                <GradedAnswer text={page.answer} remarks={NO_REMARKS} code={codeOfSplit(page.id)} />
              </section>
              <div className="grid content-start gap-6">
                <Given look={page} />
                {page.prompt.keyPoints.length > 0 && (
                  <section className="text-sm">
                    <h2 className="mb-1 text-base">A right answer</h2>
                    <KeyPoints points={page.prompt.keyPoints} />
                  </section>
                )}
              </div>
            </div>
          </>
        )}
      </Query>
    </main>
  );
}

function Given({ look }: { look: Look }) {
  if (look.level !== undefined) {
    return (
      <section role="status">
        <p>
          You gave {look.level}. {look.reason}
        </p>
        <p className="mt-2">
          <Link to={`/splits/${look.id}`}>See what the others gave</Link>
        </p>
      </section>
    );
  }
  return look.open ? <LookForm look={look} /> : <p role="status">It was closed meanwhile; thank you all the same.</p>;
}

function LookForm({ look }: { look: Look }) {
  const give = useGiveLook(look.id);
  const { chosen, choose } = useKept<{ level: number; reason: string }>(`look.${look.id}`);
  const reason = chosen.reason ?? "";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen.level !== undefined) {
      give.mutate({ level: chosen.level, reason });
    }
  };
  return (
    <form onSubmit={submit}>
      <p className="mb-2 text-sm">
        Raters lie apart on this answer. You see none of their grades: give yours, and the median of all stands.
      </p>
      <ol className="mb-3">
        {look.criterion.levels.toReversed().map((l) => (
          <li key={l.level} className="border-t border-rule py-1 text-sm last:border-b">
            <strong>{l.level}</strong> {l.anchor || l.name}
          </li>
        ))}
      </ol>
      <LevelChoice
        legend={look.criterion.question}
        levels={look.criterion.levels}
        value={chosen.level}
        onLevel={(level) => choose({ level })}
      />
      <Area
        label="Why"
        className="mt-2"
        rows={3}
        maxLength={LIMITS.GiveLook.reason}
        value={reason}
        onChange={(e) => choose({ reason: e.target.value })}
      />
      <Trouble error={give.error} className="mt-2" />
      <Button
        type="submit"
        tone="primary"
        className="mt-2"
        disabled={give.isPending || chosen.level === undefined || reason.trim() === ""}
      >
        Give it
      </Button>
    </form>
  );
}
