import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { count, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { type Column, Table } from "../../ui/Table";
import { useStudy } from "../study";
import { secretsOfStudy, useDecideOnSecret } from "./api";
import { placeOf, SORTS } from "./words";

type Found = Schemas["Found"];

/**
 * What looks like a secret in what would be sent, with a decision on each; nothing where nothing was found.
 *
 * `onDecided` is called when something more may be sent.
 */
export function SecretsFound({ onDecided }: { onDecided?: () => void }) {
  const study = useStudy();
  const secrets = useQuery(secretsOfStudy(study.id));
  if (secrets.isError) {
    return (
      <Failure
        error={secrets.error}
        what="whether something looks like a secret"
        onRetry={() => void secrets.refetch()}
      />
    );
  }
  if (!secrets.data || secrets.data.total === 0) {
    return null;
  }
  const table = <FoundTable secrets={secrets.data} onDecided={onDecided} />;
  return secrets.data.open > 0 ? (
    <Open open={secrets.data.open}>{table}</Open>
  ) : (
    <Looked total={secrets.data.total}>{table}</Looked>
  );
}

function Open({ open, children }: { open: number; children: ReactNode }) {
  return (
    <section aria-labelledby="secrets" className="mb-6">
      <h2 id="secrets">Before anything is sent</h2>
      <Note tone="caution" className="my-2">
        {count(open, "place looks", "places look")} like a secret. Requests that would send one are held back until you
        have taken it out of the prompt, or said that it may be sent.
      </Note>
      {children}
    </section>
  );
}

/** Folded away: all of it was decided on, and can be decided otherwise. */
function Looked({ total, children }: { total: number; children: ReactNode }) {
  return (
    <details className="mb-6">
      <summary className="cursor-pointer text-sm">
        {count(total, "place looks", "places look")} like a secret and may be sent
      </summary>
      {children}
    </details>
  );
}

type FoundTableProps = { secrets: Schemas["SecretsView"]; onDecided: (() => void) | undefined };

function FoundTable({ secrets, onDecided }: FoundTableProps) {
  const study = useStudy();
  const [asking, setAsking] = useState<Found>();
  const decide = useDecideOnSecret(study.id);
  const rest = secrets.total - secrets.found.length;
  return (
    <>
      <Table
        caption="What looks like a secret"
        onOneLine
        rows={secrets.found}
        rowKey={(f) => `${f.promptId} ${f.part} ${f.name} ${f.line} ${f.digest}`}
        columns={columns(
          (f) => setAsking(f),
          (f) => decide.mutate({ digest: f.digest, why: undefined }),
          decide.isPending,
        )}
      />
      {rest > 0 && <p className="mt-2 text-sm">And {count(rest, "place", "places")} more.</p>}
      {decide.isError && asking === undefined && (
        <Note tone="trouble" role="alert" className="mt-2">
          {decide.error.message}
        </Note>
      )}
      {asking !== undefined && (
        <ReasonDialog
          title="May this be sent?"
          label="Why it may be sent"
          hint="It is kept with your name. The secret itself is not."
          maxLength={LIMITS.ClearSecret.why}
          action="It may be sent"
          busy={decide.isPending}
          error={decide.error?.message}
          onReason={(why) =>
            decide.mutate(
              { digest: asking.digest, why },
              {
                onSuccess: () => {
                  setAsking(undefined);
                  onDecided?.();
                },
              },
            )
          }
          onClose={() => setAsking(undefined)}
        >
          <p>
            What stands in {placeOf(asking)} of <i>{asking.prompt || "a prompt without a title"}</i> looks like{" "}
            {SORTS[asking.sort]}. It is sent to the services of all candidates that are asked, wherever it stands in
            this study.
          </p>
        </ReasonDialog>
      )}
    </>
  );
}

const columns = (onSend: (f: Found) => void, onHold: (f: Found) => void, busy: boolean): Column<Found>[] => [
  {
    key: "place",
    head: "Where",
    rowHeader: true,
    sortBy: (f) => `${f.name} ${String(f.line).padStart(7, "0")}`,
    cell: (f) => <span className="inline-block min-w-36 wrap-anywhere">{placeOf(f)}</span>,
  },
  {
    key: "prompt",
    head: "Prompt",
    sortBy: (f) => f.prompt,
    cell: (f) => <Link to={`../prompts/${f.promptId}`}>{f.prompt || "Without a title"}</Link>,
  },
  { key: "sort", head: "Looks like", sortBy: (f) => SORTS[f.sort], cell: (f) => SORTS[f.sort] },
  { key: "hint", head: "Begins", cell: (f) => <code>{f.hint}</code> },
  {
    key: "decision",
    head: <span className="sr-only">Decision</span>,
    cell: (f) =>
      f.cleared === undefined ? (
        <Button disabled={busy} aria-label={`It may be sent: ${placeOf(f)}`} onClick={() => onSend(f)}>
          It may be sent …
        </Button>
      ) : (
        <span className="text-sm">
          May be sent, {f.cleared.clearedBy}, {moment(f.cleared.clearedAt)}: {f.cleared.why}{" "}
          <Button disabled={busy} aria-label={`Hold back: ${placeOf(f)}`} onClick={() => onHold(f)}>
            Hold back
          </Button>
        </span>
      ),
  },
];
