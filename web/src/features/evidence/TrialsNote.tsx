import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useStudy } from "../study";
import { evidenceOf } from "./api";

const SHOWN: Record<Schemas["EvidenceReport"]["shown"], string> = {
  FROM_THE_START: "Raters could see what came of trying answers’ code from the start.",
  AFTER_OWN_GRADE: "Raters could see what came of trying an answer’s code once they had graded it.",
  NEVER: "Answers’ code was tried; raters did not see what came of it.",
};

/** Whether raters saw trials, where there are any: agreement rests on it. */
export function TrialsNote() {
  const study = useStudy();
  const { data } = useQuery({ ...evidenceOf(study.id), enabled: study.stage === "CLOSED" });
  if (!data || data.answers.every((a) => a.standing === "NOT_TRIED")) {
    return null;
  }
  return (
    <p className="mt-0.5 text-sm text-ink-soft">
      {SHOWN[data.shown]} <Link to="../recommendation/trials">What that did to agreement</Link>
    </p>
  );
}
