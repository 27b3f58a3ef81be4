import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { count, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { AgreementTable } from "./AgreementTable";
import { oneCalibration, type Which } from "./api";
import { Comparison } from "./Comparison";
import { DistanceTable } from "./DistanceTable";
import { GradeAgain } from "./GradeAgain";
import { KeepInBank } from "./KeepInBank";
import { StillGrading } from "./StillGrading";

type Page = Schemas["CalibrationPage"];

export function useWhich(): Which {
  const params = useParams();
  return { studyId: params["studyId"] ?? "", number: Number(params["number"]) };
}

/** A calibration: who has sent in, and once all have, what everybody gave, side by side. */
export function CalibrationPage() {
  const which = useWhich();
  const calibration = useQuery(oneCalibration(which));
  useTitle(calibration.data && `Calibration ${which.number} · ${calibration.data.summary.studyTitle}`);
  return (
    <main className="mx-auto w-full max-w-6xl px-4 py-4 sm:px-6">
      <Query of={calibration} what="the calibration">
        {(page) => (
          <>
            <Head page={page} which={which} />
            {page.summary.open ? <Opened page={page} which={which} /> : <Closed page={page} which={which} />}
          </>
        )}
      </Query>
    </main>
  );
}

function Head({ page, which }: { page: Page; which: Which }) {
  const { summary, course } = page;
  return (
    <header>
      <p className="text-sm text-ink-soft">
        <Link to={page.leads ? `/studies/${which.studyId}/grading` : "/"}>{summary.studyTitle}</Link>
      </p>
      <h1>Calibration {which.number}</h1>
      <p className="mt-1 text-ink-soft [overflow-wrap:anywhere]">
        By {summary.prompts.map((title) => `“${title}”`).join(" and ")}. Begun by {course.begunBy},{" "}
        {moment(course.begunAt)}, by version {course.rubricVersion} of the rubric
        {course.again && `; graded again from ${moment(course.again.at)} on, by version ${course.again.rubricVersion}`}.
        Nothing of it counts in the round.
      </p>
    </header>
  );
}

/** Before the last is in nobody sees what others gave, the lead included. */
function Closed({ page, which }: { page: Page; which: Which }) {
  const { summary } = page;
  return (
    <>
      <Note tone="info" className="mt-5 max-w-3xl" role="status">
        <p>
          {summary.sent} of {count(summary.sheets, "sheet", "sheets")} sent in. What everybody gave opens to all with
          the last one.
        </p>
        <StillGrading waitsFor={page.waitsFor} which={which} />
        {summary.toGrade > 0 && (
          <p>
            You have <Link to="/">{count(summary.toGrade, "sheet", "sheets")} to grade</Link>.
          </p>
        )}
      </Note>
      {page.answers.length > 0 && <Comparison page={page} which={which} />}
    </>
  );
}

function Opened({ page, which }: { page: Page; which: Which }) {
  const { summary } = page;
  return (
    <>
      {summary.stage === "AGAIN" && (
        <Note tone="info" className="mt-4 max-w-3xl" role="status">
          It is graded again: {summary.sent} of {count(summary.sheets, "sheet", "sheets")} sent in. The talk rests
          meanwhile.
          <StillGrading waitsFor={page.waitsFor} which={which} />
        </Note>
      )}
      <Verdict page={page} />
      <Comparison page={page} which={which} />
      <div className="mt-8 grid gap-x-10 gap-y-8 lg:grid-cols-2">
        <AgreementTable page={page} />
        <DistanceTable page={page} />
      </div>
      {page.leads && <GradeAgain page={page} which={which} />}
      {page.leads && <KeepInBank page={page} which={which} />}
    </>
  );
}

/** In a sentence, whether raters read the ruler alike. */
function Verdict({ page }: { page: Page }) {
  const short = page.agreement.filter((a) => a.reached === false).map((a) => a.name.toLowerCase());
  const widest = page.answers.flatMap((a) => a.cells.map((c) => c.distance)).filter((d) => d >= 2).length;
  return (
    <Note tone={page.summary.reached ? "good" : "caution"} className="mt-4 max-w-3xl" role="status">
      <p>
        {page.summary.reached
          ? "Agreement reached the floor on every criterion that counts, before anybody saw another’s grades."
          : short.length > 0
            ? `Agreement on ${short.join(" and ")} was short of the floor before the talk.`
            : "Agreement could not be computed on every criterion that counts."}{" "}
        {widest === 0
          ? "No answer parts the raters by two levels."
          : `${count(widest, "cell parts", "cells part")} the raters by two levels or more: talk about those first.`}
      </p>
    </Note>
  );
}
