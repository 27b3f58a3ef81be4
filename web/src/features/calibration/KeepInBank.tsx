import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { useKeepInBank, type Which } from "./api";

/** Keeps what was learned for the raters of other studies. */
export function KeepInBank({ page, which }: { page: Schemas["CalibrationPage"]; which: Which }) {
  const keep = useKeepInBank(which);
  const settled = page.answers.filter((a) =>
    a.cells.some((cell) => cell.settled !== undefined || cell.reference !== undefined),
  ).length;
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2>For the raters of other studies</h2>
      <p className="mt-1 max-w-3xl">
        {settled === 0
          ? "Once answers have a level that they should stand at, the prompts can be kept in the bank together with them."
          : `${count(settled, "answer has", "answers have")} a level to stand at. In the bank they go with their prompts, as raters read them and without whose they were; a study that takes such a prompt lays them before its raters, and measures them against these levels.`}
      </p>
      {settled > 0 && (
        <Button className="mt-3" disabled={keep.isPending} onClick={() => keep.mutate()}>
          Keep the prompts with these answers
        </Button>
      )}
      <div role="status" className="mt-2">
        {keep.isSuccess &&
          keep.data.map((kept) => (
            <p key={kept.title} className="[overflow-wrap:anywhere]">
              “{kept.title}” is kept as version {kept.version}, with {count(kept.answers, "answer", "answers")}.
            </p>
          ))}
      </div>
      <Trouble error={keep.error} className="mt-2" />
    </section>
  );
}
