import { useQuery } from "@tanstack/react-query";
import { Outlet } from "react-router";
import { Query } from "../../ui/Query";
import { oneStudy } from "./api";
import { StrataRail } from "./StrataRail";
import { useStudyId } from "./useStudy";

export function StudyLayout() {
  const study = useQuery(oneStudy(useStudyId()));
  return (
    <Query of={study} what="the study">
      {(summary) => (
        <div className="flex flex-1 flex-col md:flex-row">
          <StrataRail study={summary} />
          <main className="min-w-0 flex-1 px-6 py-6 lg:px-8">
            <p className="mb-2 hidden font-serif print:block">{summary.title}</p>
            <Outlet context={summary} />
          </main>
        </div>
      )}
    </Query>
  );
}
