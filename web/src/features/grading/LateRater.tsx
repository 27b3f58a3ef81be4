import { useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { Note } from "../../ui/Note";
import { InvitationList } from "../account";
import { NewPerson, useAddRater } from "../study";
import { AS_RATER } from "./RatersOfStudy";

/** Somebody comes in while others grade: without a sheet, until some are dealt to them. */
export function LateRater({ studyId }: { studyId: string }) {
  const add = useAddRater(studyId);
  const [invitation, setInvitation] = useState<Schemas["Invitation"]>();
  return (
    <details className="mt-4">
      <summary className="cursor-pointer font-medium">Somebody comes in late</summary>
      <p className="mt-1 max-w-2xl text-ink-soft">
        They stand among the raters without a sheet. Choose them there to deal them some, or hand a sheet over to them.
      </p>
      <NewPerson add={add} roles={AS_RATER} onInvited={setInvitation} />
      {add.isError && !(add.error instanceof ApiProblem && add.error.errors.length > 0) && (
        <Note tone="trouble" role="alert" className="mt-2">
          {add.error.message}
        </Note>
      )}
      {add.data?.asked && (
        <Note tone="info" role="status" className="mt-2">
          They have an account of their own and are asked first; sheets can be dealt once they accept.
        </Note>
      )}
      {invitation && (
        <div className="mt-3">
          <InvitationList invitations={[invitation]} />
        </div>
      )}
    </details>
  );
}
