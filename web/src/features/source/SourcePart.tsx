import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm, Dialog } from "../../ui/Dialog";
import { Area } from "../../ui/Field";
import { duration } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useStudy } from "../study";
import { sourcesOfStudy, useRemoveSource, useTrySource } from "./api";
import { SourceForm } from "./SourceForm";

type SourcesView = Schemas["SourcesView"];
type SourceView = Schemas["SourceView"];

/** Where a candidate can be asked, beside what it is. */
export function SourcePart({ candidateId }: { candidateId: string }) {
  const study = useStudy();
  const sources = useQuery(sourcesOfStudy(study.id));
  return (
    <section aria-labelledby="source-head" className="mt-8 border-t border-rule pt-4">
      <h2 id="source-head">Source</h2>
      <Query of={sources} what="the source">
        {(all) => (
          <Source candidateId={candidateId} all={all} own={all.sources.find((s) => s.candidateId === candidateId)} />
        )}
      </Query>
    </section>
  );
}

type SourceProps = { candidateId: string; all: SourcesView; own: SourceView | undefined };

function Source({ candidateId, all, own }: SourceProps) {
  const study = useStudy();
  const [writing, setWriting] = useState(false);
  const preparing = study.stage === "PREPARING";
  if (all.allowed.length === 0) {
    return (
      <p className="mt-1 max-w-2xl text-ink-soft">
        Candidates can be asked over HTTP once this server’s administrator says which addresses may be reached, in{" "}
        <code className="font-mono">MOSSBANK_ALLOWED_SOURCES</code>. Until then answers are pasted or come from files.
      </p>
    );
  }
  return (
    <>
      {own ? (
        <Summary source={own} />
      ) : (
        <p className="mt-1 mb-3 max-w-2xl">
          An address at which this candidate can be asked. Then its answers are collected for you, with time, tokens and
          cost.
        </p>
      )}
      {preparing && (
        <p className="flex flex-wrap gap-2">
          <Button onClick={() => setWriting(true)}>{own ? "Change the source" : "Name a source"}</Button>
          {own && <TryOut candidateId={candidateId} />}
          {own && <Remove candidateId={candidateId} />}
        </p>
      )}
      <Dialog title={own ? "Change the source" : "Name a source"} open={writing} onOpenChange={setWriting}>
        <SourceForm candidateId={candidateId} all={all} own={own} onDone={() => setWriting(false)} />
      </Dialog>
    </>
  );
}

function Summary({ source }: { source: SourceView }) {
  const { content } = source;
  return (
    <dl className="my-3 grid max-w-2xl grid-cols-[10rem_1fr] gap-x-4 gap-y-1">
      <dt className="text-ink-soft">Asked at</dt>
      <dd className="font-mono text-sm [overflow-wrap:anywhere]">
        {content.method} {content.url}
      </dd>
      <dt className="text-ink-soft">Answers</dt>
      <dd>{content.shape === "WHOLE" ? "in one document" : "in events, as it writes"}</dd>
      <dt className="text-ink-soft">Limits</dt>
      <dd>
        {duration(content.timeLimitMs)} a request, {content.mostTries} tries, {content.mostAtOnce} at once, at most{" "}
        {content.mostOutputTokens} tokens out
      </dd>
    </dl>
  );
}

function TryOut({ candidateId }: { candidateId: string }) {
  const study = useStudy();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("Say in one sentence what a binary search needs.");
  const tryOut = useTrySource(study.id, candidateId);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Try it …</Button>
      <Dialog title="Try the source" open={open} onOpenChange={setOpen}>
        <p className="mb-3">Asks once and keeps nothing. It may cost what one answer costs.</p>
        <Area label="Ask" maxLength={LIMITS.TrySource.text} value={text} onChange={(e) => setText(e.target.value)} />
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={() => setOpen(false)}>Leave it</Button>
          <Button tone="primary" disabled={tryOut.isPending || text.trim() === ""} onClick={() => tryOut.mutate(text)}>
            {tryOut.isPending ? "Asking …" : "Ask"}
          </Button>
        </div>
        {tryOut.isError && (
          <Note tone="trouble" role="alert" className="mt-3">
            {tryOut.error.message}
          </Note>
        )}
        {tryOut.data && !tryOut.isPending && <TryOutResult result={tryOut.data} />}
      </Dialog>
    </>
  );
}

function TryOutResult({ result }: { result: Schemas["TryOutView"] }) {
  const counts = [
    result.firstOutputMs !== undefined && `first output after ${duration(result.firstOutputMs)}`,
    `${duration(result.totalMs)} in all`,
    result.inputTokens === undefined ? "tokens in not told" : `${result.inputTokens} tokens in`,
    result.outputTokens === undefined ? "tokens out not told" : `${result.outputTokens} tokens out`,
  ].filter((p) => p !== false);
  return (
    <div role="status" className="mt-4">
      <Note tone={result.ending === "COMPLETE" ? "good" : "caution"}>
        {result.ending === "COMPLETE" ? "It answered." : result.reason}
      </Note>
      <p className="mt-2 text-sm text-ink-soft">{counts.join(" · ")}</p>
      {result.text !== "" && (
        <pre tabIndex={0} className="mt-2 max-h-48 overflow-auto font-mono text-sm whitespace-pre-wrap">
          {result.text}
        </pre>
      )}
    </div>
  );
}

function Remove({ candidateId }: { candidateId: string }) {
  const study = useStudy();
  const [open, setOpen] = useState(false);
  const remove = useRemoveSource(study.id, candidateId);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Remove the source …</Button>
      <Confirm
        title="Remove the source?"
        open={open}
        onOpenChange={setOpen}
        action="Remove it"
        busy={remove.isPending}
        onConfirm={() => remove.mutate(undefined, { onSuccess: () => setOpen(false) })}
      >
        <p>Its address and templates are gone then. Answers that came from it stay.</p>
        {remove.isError && <Note tone="trouble">{remove.error.message}</Note>}
      </Confirm>
    </>
  );
}
