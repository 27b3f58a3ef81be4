import { useQuery } from "@tanstack/react-query";
import { Choice } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { useStudy } from "../study";
import { turnVerdictsOf, useSayOfTurn } from "./api";
import { TURN_VERDICTS, type Verdict, VERDICTS_IN_ORDER } from "./words";

type TurnVerdictProps = { answerId: string; turn: number; mayWrite: boolean };

/** Whether a reply does what was asked; the lead says so while the study is prepared. */
export function TurnVerdict({ answerId, turn, mayWrite }: TurnVerdictProps) {
  const study = useStudy();
  const verdicts = useQuery(turnVerdictsOf(study.id));
  const say = useSayOfTurn(study.id);
  if (verdicts.data === undefined) {
    return null;
  }
  const said = verdicts.data.find((s) => s.answerId === answerId && s.turn === turn);
  if (!mayWrite) {
    return said === undefined ? null : (
      <p className="mt-2 text-sm text-ink-soft">
        {TURN_VERDICTS[said.verdict]}, as {said.by} found before the round
      </p>
    );
  }
  return (
    <div className="mt-3">
      <Choice<Verdict | "">
        label={turn === 0 ? "Does the first reply do?" : `Does the reply to follow-up ${turn} do?`}
        className="max-w-80"
        value={said?.verdict ?? ""}
        options={[
          { value: "", label: "nobody said yet" },
          ...VERDICTS_IN_ORDER.map((v) => ({ value: v, label: TURN_VERDICTS[v] })),
        ]}
        onValue={(verdict) => say.mutate({ answerId, turn, verdict: verdict === "" ? undefined : verdict })}
      />
      {said !== undefined && (
        <p className="mt-0.5 text-sm text-ink-soft">
          {said.by}, {moment(said.at)}
        </p>
      )}
      <Trouble error={say.error} className="mt-1" />
    </div>
  );
}
