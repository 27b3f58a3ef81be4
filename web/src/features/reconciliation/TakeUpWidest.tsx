import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { useTakeUpWidest } from "./api";

/** As many as people talk through in an hour or two. */
const AT_ONCE = 10;

/** Takes the widest splits up that are not yet; a lead who grades may do so too, as it shows no grade. */
export function TakeUpWidest({ studyId }: { studyId: string }) {
  const takeUp = useTakeUpWidest(studyId);
  return (
    <div>
      <Button disabled={takeUp.isPending} onClick={() => takeUp.mutate(AT_ONCE)}>
        Take up the {AT_ONCE} widest
      </Button>
      <span role="status" className="ml-3 text-sm">
        {takeUp.isSuccess &&
          (takeUp.data.count === 0
            ? "There is none that is not taken up."
            : `${count(takeUp.data.count, "split is", "splits are")} taken up; those who graded them are told on their first page.`)}
      </span>
      <Trouble error={takeUp.error} className="mt-2" />
    </div>
  );
}
