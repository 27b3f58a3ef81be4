import type { UseQueryResult } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { ApiProblem } from "../api/client";
import { Button } from "./Button";
import { Note } from "./Note";

type QueryProps<T> = {
  of: UseQueryResult<T>;
  what: string;
  /** Why it may be long in coming, in a sentence. */
  long?: string;
  children: (data: T) => ReactNode;
};

/** Of what is made of all grades. */
export const WORKED_OUT = "The figures of a large study are worked out once, and are there at once from then on.";

/** A data view's first two states: still coming, and failed with a way to try again. */
export function Query<T>({ of: query, what, long, children }: QueryProps<T>) {
  if (query.data !== undefined) {
    return children(query.data);
  }
  if (query.isError) {
    return <Failure error={query.error} what={what} onRetry={() => void query.refetch()} />;
  }
  return <Coming what={what} long={long} />;
}

/** How long something may take before it is said that it takes long, in milliseconds. */
const LONG = 2_500;

/** What is long in coming says how long it has been. */
function Coming({ what, long }: { what: string; long: string | undefined }) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const began = Date.now();
    const timer = setInterval(() => setSeconds(Math.floor((Date.now() - began) / 1000)), 500);
    return () => clearInterval(timer);
  }, []);
  return (
    <div className="p-6 text-ink-soft">
      <p role="status">Fetching {what} …</p>
      {seconds * 1000 >= LONG && (
        <p className="mt-1 text-sm">
          {long ?? "It takes longer than usual."} {seconds} s so far.
        </p>
      )}
    </div>
  );
}

type FailureProps = { error: Error; what: string; onRetry?: () => void };

export function Failure({ error, what, onRetry }: FailureProps) {
  const gone = error instanceof ApiProblem && (error.status === 404 || error.status === 400);
  const closed = error instanceof ApiProblem && error.status === 403;
  return (
    <div className="p-6">
      <Note tone="trouble" role="alert">
        {gone && <p>There is no such page, or it is not yours to see.</p>}
        {closed && <p>This opens to raters when the lead closes the round.</p>}
        {!gone && !closed && (
          <>
            <p>
              Could not fetch {what}. {error.message}
            </p>
            {onRetry && (
              <Button className="mt-2" onClick={onRetry}>
                Try again
              </Button>
            )}
          </>
        )}
      </Note>
    </div>
  );
}
