import { Link } from "react-router";
import { ApiProblem } from "../../api/client";
import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import type { Lock } from "./lock";
import type { Missing } from "./missing";

type MessagesProps = {
  missing: Missing[] | undefined;
  onJump: (missing: Missing) => void;
  failure: Error | null;
  lock: Lock | undefined;
  withdrawn: string | undefined;
  onTakeBack: (() => void) | undefined;
  /** Where to go on after a sheet that was just sent in. */
  next: string | undefined;
};

const LOCKS: Record<Exclude<Lock, "withdrawn">, string> = {
  sent: "This sheet is sent in.",
  closed: "The round is closed; grades stay as they are.",
  "set-aside": "The prompt turned out faulty and was set aside; there is nothing to grade here.",
};

/** More missing things than these are counted. */
const MOST_LISTED = 12;

/** What keeps the sheet from being sent in, each a jump; what went wrong; or why nothing can be set. */
export function Messages({ missing, onJump, failure, lock, withdrawn, onTakeBack, next }: MessagesProps) {
  if (lock) {
    return (
      <Note tone="info" role="status" className="mx-4 mt-1.5 flex flex-wrap items-center gap-3">
        {lock === "withdrawn" ? `The lead has withdrawn this sheet: ${withdrawn ?? ""}` : LOCKS[lock]}
        {lock === "sent" && next && (
          <Link to={next} className="text-tarn underline underline-offset-4">
            {next === "/" ? "All your sheets are done" : "Next sheet"}
          </Link>
        )}
        {lock === "sent" && onTakeBack && <Button onClick={onTakeBack}>Take it back</Button>}
        <Link to="/" className="text-tarn underline underline-offset-4">
          All your sheets
        </Link>
      </Note>
    );
  }
  if (missing && missing.length > 0) {
    return (
      <Note tone="caution" role="alert" className="mx-4 mt-1.5">
        <p>{count(missing.length, "thing is", "things are")} missing before the sheet can be sent in.</p>
        <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-0.5">
          {missing.slice(0, MOST_LISTED).map((m) => (
            <li key={m.words}>
              <button type="button" className="text-tarn underline underline-offset-4" onClick={() => onJump(m)}>
                {m.words}
              </button>
            </li>
          ))}
          {missing.length > MOST_LISTED && <li>and {missing.length - MOST_LISTED} more</li>}
        </ul>
      </Note>
    );
  }
  const failed =
    failure instanceof ApiProblem ? `${failure.message} ${failure.errors[0]?.message ?? ""}` : failure?.message;
  return failed ? (
    <Note tone="caution" role="alert" className="mx-4 mt-1.5">
      {failed}
    </Note>
  ) : null;
}
