import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { count } from "../../ui/format";
import { useStudy } from "../study";
import { maskingOfStudy } from "./api";

/** Where the masking of a study's answers stands, for its lead. */
export function MaskingLine() {
  const study = useStudy();
  const sees = study.role === "LEAD" && !study.blind;
  const masking = useQuery({ ...maskingOfStudy(study.id), enabled: sees });
  if (!masking.data) {
    return null;
  }
  const { undecided } = masking.data;
  return (
    <p className="mb-5">
      <Link to="masking">Masking</Link>:{" "}
      {undecided === 0
        ? "nothing is open."
        : `${count(undecided, "stretch", "stretches")} may give a candidate away, and nobody has decided yet.`}
    </p>
  );
}
