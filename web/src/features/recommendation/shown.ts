import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { useStudy } from "../study";
import { hungOnAtLook, recommendationOfStudy, robustnessOfStudy, seenAtLook } from "./api";

/** Which look the address asks for, from 1; 0 for the study as it stands. */
export function useLook(): number {
  const [search] = useSearchParams();
  const look = Number(search.get("look") ?? "0");
  return Number.isInteger(look) && look > 0 ? look : 0;
}

/** The recommendation that the address asks for: as it stands, or as it was seen at a look. */
export function useReport() {
  const study = useStudy();
  const look = useLook();
  const hidden = look === 0 && study.stage === "GRADING";
  const now = useQuery({ ...recommendationOfStudy(study.id), enabled: look === 0 && !hidden });
  const then = useQuery({ ...seenAtLook(study.id, look), enabled: look > 0 });
  return { look, hidden, query: look > 0 ? then : now };
}

/** What its outcome hangs on. */
export function useRobustness() {
  const study = useStudy();
  const look = useLook();
  const now = useQuery({ ...robustnessOfStudy(study.id), enabled: look === 0 });
  const then = useQuery({ ...hungOnAtLook(study.id, look), enabled: look > 0 });
  return look > 0 ? then : now;
}
