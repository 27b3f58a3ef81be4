import { useQuery } from "@tanstack/react-query";
import { useStudy } from "../study";
import { evidenceOf } from "./api";
import { WorksTable } from "./WorksTable";

type WorksByTrialProps = {
  /** Of one kind alone. */
  kindId?: string | undefined;
};

/** What works by trial, where there are any trials; else nothing. */
export function WorksByTrial({ kindId }: WorksByTrialProps) {
  const study = useStudy();
  const { data } = useQuery({ ...evidenceOf(study.id), refetchOnMount: "always" });
  const part = data?.parts.find((p) => p.kindId === kindId) ?? data?.parts[0];
  if (!data || !part || part.candidates.every((c) => c.tried === 0)) {
    return null;
  }
  return (
    <section className="mt-7">
      <h2 className="mb-1">By trial</h2>
      <WorksTable report={data} part={part} />
    </section>
  );
}
