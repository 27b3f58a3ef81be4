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
  if (!sees) {
    return null;
  }
  // The way there is always there, and nothing below moves when it is known where it stands.
  return (
    <p className="mb-5">
      <Link to="masking">Masking</Link>:{" "}
      {masking.isPending ? (
        <span role="status">Fetching where it stands …</span>
      ) : masking.data ? (
        standing(masking.data.undecided)
      ) : (
        "where it stands could not be fetched."
      )}
    </p>
  );
}

const standing = (undecided: number): string =>
  undecided === 0
    ? "nothing is open."
    : `${count(undecided, "stretch", "stretches")} may give a candidate away, and nobody has decided yet.`;
