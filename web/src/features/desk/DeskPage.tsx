import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { ApiProblem } from "../../api/client";
import { isCopy } from "../../api/copies";
import { Query } from "../../ui/Query";
import { useAccount } from "../account";
import { ExpectationForm } from "../study";
import { copyOfSheet, mySheets, oneSheet } from "./api";
import { SheetDesk } from "./SheetDesk";

export function DeskPage() {
  const sheetId = useParams()["sheetId"] ?? "";
  const account = useAccount();
  const sheet = useQuery(oneSheet(sheetId));
  if (sheet.error instanceof ApiProblem && sheet.error.type === "expectation-first") {
    return <ExpectationFirst sheetId={sheetId} />;
  }
  // Looked at anew whenever something came.
  const fromCopy = sheet.dataUpdatedAt > 0 && isCopy(copyOfSheet(sheetId));
  return (
    <Query of={sheet} what="the sheet">
      {(data) => <SheetDesk key={data.id} sheet={data} accountId={account.id} fromCopy={fromCopy} />}
    </Query>
  );
}

/** Asked once, before the first sheet of a study is shown. */
function ExpectationFirst({ sheetId }: { sheetId: string }) {
  const client = useQueryClient();
  const sheets = useQuery(mySheets());
  const own = sheets.data?.find((s) => s.id === sheetId);
  return (
    <main className="mx-auto w-full max-w-2xl px-6 py-10">
      <h1>Before you see any answer</h1>
      <p className="mt-2 mb-5">
        {own ? `“${own.studyTitle}” asks` : "This study asks"} everybody what they expect. What you say now is read only
        with the recommendation, and cannot be changed once you have seen an answer.
      </p>
      {own && (
        <ExpectationForm
          studyId={own.studyId}
          onDeclared={() => void client.invalidateQueries({ queryKey: oneSheet(sheetId).queryKey })}
        />
      )}
    </main>
  );
}
