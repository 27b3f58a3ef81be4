import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { expectationIn, useDeclare } from "./api";

type ExpectationFormProps = {
  studyId: string;
  /** Candidates to choose from, for a lead, who knows them. */
  names?: string[];
  onDeclared?: () => void;
};

/** Asks what one expects before anything is seen. Names of candidates are not offered: raters do not know them yet. */
export function ExpectationForm({ studyId, names = [], onDeclared }: ExpectationFormProps) {
  const known = useQuery(expectationIn(studyId));
  return (
    <Query of={known} what="what you expect">
      {(own) => <Form key={String(own.declared)} studyId={studyId} own={own} names={names} onDeclared={onDeclared} />}
    </Query>
  );
}

type FormProps = {
  studyId: string;
  own: { declared: boolean; open: boolean; expects: string; usesToday: string };
  names: string[];
  onDeclared: (() => void) | undefined;
};

function Form({ studyId, own, names, onDeclared }: FormProps) {
  const declare = useDeclare(studyId);
  const [expects, setExpects] = useState(own.expects);
  const [usesToday, setUsesToday] = useState(own.usesToday);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    declare.mutate({ expects, usesToday }, { onSuccess: () => onDeclared?.() });
  };
  if (own.declared && !own.open) {
    return <p className="text-ink-soft">You have said what you expect. It is shown with the recommendation.</p>;
  }
  return (
    <form onSubmit={submit} className="grid max-w-xl gap-3">
      {names.length > 0 && (
        <Choice
          label="Which candidate do you think will do best?"
          value={names.includes(expects) ? expects : ""}
          options={[
            { value: "", label: expects === "" ? "none in particular" : "as you write below" },
            ...[...new Set(names)].map((name) => ({ value: name, label: name })),
          ]}
          onValue={setExpects}
        />
      )}
      <Field
        label={names.length > 0 ? "In your own words" : "Which model do you think will do best?"}
        hint="Leave it empty if you expect nothing in particular."
        maxLength={LIMITS.Declare.expects}
        value={expects}
        onChange={(e) => setExpects(e.target.value)}
      />
      <Field
        label="What do you use today?"
        maxLength={LIMITS.Declare.usesToday}
        value={usesToday}
        onChange={(e) => setUsesToday(e.target.value)}
      />
      {declare.isError && (
        <Note tone="trouble" role="alert">
          {declare.error.message}
        </Note>
      )}
      <p className="flex items-center gap-3">
        <Button type="submit" tone={own.declared ? "quiet" : "primary"} disabled={declare.isPending}>
          {own.declared ? "Say it anew" : "That is what I expect"}
        </Button>
        {own.declared && (
          <span className="text-sm text-ink-soft">Said; it can be changed until the brief is closed.</span>
        )}
      </p>
    </form>
  );
}
