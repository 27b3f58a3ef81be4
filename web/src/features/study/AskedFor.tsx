import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { accept, askedFor, decline } from "./api";

const AS = { LEAD: "lead", RATER: "grade in", READER: "read" };

/** Studies whose leads ask for whoever is signed in: they belong to one once they accept. */
export function AskedFor() {
  const client = useQueryClient();
  const asked = useQuery(askedFor());
  const answer = useMutation({
    mutationFn: ({ studyId, yes }: { studyId: string; yes: boolean }) => (yes ? accept(studyId) : decline(studyId)),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <>
      {asked.data?.map((study) => (
        <Note key={study.studyId} tone="info" role="status" className="mb-5">
          <p>
            {study.lead} asks you to {AS[study.role]} “{study.title}”.
          </p>
          <div className="mt-2 flex gap-2">
            <Button
              tone="primary"
              disabled={answer.isPending}
              onClick={() => answer.mutate({ studyId: study.studyId, yes: true })}
            >
              Accept
            </Button>
            <Button disabled={answer.isPending} onClick={() => answer.mutate({ studyId: study.studyId, yes: false })}>
              Decline
            </Button>
          </div>
        </Note>
      ))}
      {answer.isError && (
        <Note tone="trouble" role="alert" className="mb-5">
          {answer.error.message}
        </Note>
      )}
    </>
  );
}
