import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";
import { myCalibrations } from "./api";

type Own = Schemas["CalibrationSummary"];

/** What a calibration waits for, as whoever signed in takes part in it. */
function waitsFor(own: Own): string {
  if (own.toGrade > 0) {
    return `${count(own.toGrade, "sheet", "sheets")} to grade`;
  }
  if (own.stage === "OVER") {
    return own.open ? "what was settled" : "";
  }
  if (own.stage === "TALK") {
    return own.open ? "all are in: compare and talk" : "";
  }
  const left = own.sheets - own.sent;
  return left > 0 ? `waits for ${count(left, "sheet", "sheets")} of others` : "";
}

/** Calibrations in which whoever signed in takes part, until the round is closed. */
export function CalibrationsThatWait() {
  const { data } = useQuery(myCalibrations());
  if (!data || data.length === 0) {
    return null;
  }
  return (
    <section className="mt-8 mb-8">
      <h2>Calibration</h2>
      <ul className="mt-2">
        {data.map((own) => (
          <li
            key={`${own.studyId} ${own.number}`}
            className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1.5 [overflow-wrap:anywhere] last:border-b"
          >
            <Link to={`/calibrations/${own.studyId}/${own.number}`} className="text-tarn underline underline-offset-4">
              {own.prompts.join(", ")}
            </Link>
            <span className="text-sm text-ink-soft">{own.studyTitle}</span>
            <span className="ml-auto text-sm">{waitsFor(own)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
