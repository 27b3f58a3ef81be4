import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { type Works, WORKS } from "./cells";
import { worksOf } from "./rows";
import { trialsOnSheet } from "./trying/api";
import type { Desk } from "./useDesk";

type WorksByTrialProps = {
  sheetId: string;
  answer: Schemas["SheetView"]["answers"][number];
  desk: Desk;
  locked: boolean;
};

/** Without how it came that it does not. */
const plain = (works: Works): Works => (works === "GAVE_UP" || works === "SAID_DONE" ? "NOT" : works);

/** Whether what a rater found is contrary to what a trial found. The server asks the same. */
export const isContrary = (found: Works | undefined, byTrial: Works | undefined): boolean =>
  found !== undefined && byTrial !== undefined && found !== "NOT_TRIED" && plain(found) !== plain(byTrial);

/** What trials propose, and the word that is asked of whoever says otherwise. */
export function WorksByTrial({ sheetId, answer, desk, locked }: WorksByTrialProps) {
  const trials = useQuery(trialsOnSheet(sheetId));
  const byTrial = trials.data?.answers.find((t) => t.answerId === answer.id)?.proposed;
  const found = desk.worksAt(answer.id);
  if (byTrial === undefined) {
    return null;
  }
  return (
    <>
      <span className="border-b border-ochre">By trial: {WORKS[byTrial]}.</span>{" "}
      {isContrary(found, byTrial) && (
        <label className="ml-2 inline-flex items-baseline gap-2">
          You say otherwise; why?
          <input
            type="text"
            className="w-[min(28rem,40vw)] rounded-leaf border border-edge bg-paper px-2"
            maxLength={LIMITS.SetWorks.why}
            readOnly={locked}
            value={desk.worksWhyAt(answer.id)}
            onChange={(e) => desk.set(worksOf(answer.id, found, e.target.value))}
          />
        </label>
      )}
    </>
  );
}
