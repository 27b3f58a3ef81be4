import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { moment } from "../../ui/format";
import { useStudy } from "../study";
import { runsOfStudy } from "./api";
import { runLine } from "./words";

/** The runs of a study, newest first; nothing for whoever may not see them, or while there are none. */
export function RunLines() {
  const study = useStudy();
  const runs = useQuery({ ...runsOfStudy(study.id), enabled: study.role === "LEAD", retry: false });
  if (!runs.data || runs.data.length === 0) {
    return null;
  }
  return (
    <ul aria-label="Runs" className="mb-4">
      {runs.data.toReversed().map((run) => (
        <li key={run.id}>
          <Link to={`/studies/${study.id}/answers/runs/${run.id}`}>Run of {moment(run.startedAt)}</Link>: {runLine(run)}
          {run.reason !== undefined && <span className="text-ink-soft">. {run.reason}</span>}
        </li>
      ))}
    </ul>
  );
}
