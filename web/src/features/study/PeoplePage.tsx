import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { actingFor, ApiProblem, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { InvitationList } from "../account";
import { peopleOfStudy, useAddRater, useHandOver, useLetLead, useRemoveRater, useStepBack } from "./api";
import { Leavers } from "./Leavers";
import { NewPerson } from "./NewPerson";
import { useStudy } from "./useStudy";

type Person = Schemas["PersonView"];

const ROLES: Record<Person["role"], string> = { LEAD: "leads", RATER: "grades", READER: "reads" };

/** Who belongs to a study, and as what: who leads it is changed here. */
export function PeoplePage() {
  const study = useStudy();
  const people = useQuery(peopleOfStudy(study.id));
  useTitle(`People: ${study.title}`);
  return (
    <>
      <h1>People</h1>
      <p className="mt-1 mb-4 max-w-prose text-ink-soft">
        Leads prepare the study and decide. Readers see what raters see once the round is closed, and the memo. Who
        grades is looked after under <Link to="../grading">Grading</Link>.
      </p>
      <Query of={people} what="the people">
        {(all) => <PeopleOfStudy people={all} />}
      </Query>
    </>
  );
}

function PeopleOfStudy({ people }: { people: Person[] }) {
  const study = useStudy();
  const add = useAddRater(study.id);
  const [invitations, setInvitations] = useState<Schemas["Invitation"][]>([]);
  return (
    <>
      <PeopleTable people={people} />
      <h2 className="mt-8">Somebody else</h2>
      <NewPerson
        add={add}
        roles={[
          { value: "LEAD", label: "Lead" },
          { value: "READER", label: "Reader" },
        ]}
        onInvited={(made) => setInvitations((old) => [...old, made])}
      />
      {!(add.error instanceof ApiProblem && add.error.errors.length > 0) && (
        <Trouble error={add.error} className="mt-2" />
      )}
      {add.data?.mailed && (
        <Note tone="good" role="status" className="mt-2">
          An invitation goes to them by mail.
        </Note>
      )}
      {add.data?.asked && (
        <Note tone="info" role="status" className="mt-2">
          Whoever signs in by this name has an account of their own. They are asked, and belong to the study once they
          accept.
        </Note>
      )}
      {invitations.length > 0 && (
        <div className="mt-3">
          <InvitationList invitations={invitations} />
        </div>
      )}
      <Leavers />
    </>
  );
}

/** What is asked before it is done. */
type Asked = { what: "lead" | "hand-over" | "step-back"; person: Person };

function PeopleTable({ people }: { people: Person[] }) {
  const study = useStudy();
  const own = actingFor();
  const remove = useRemoveRater(study.id);
  const [asked, setAsked] = useState<Asked>();
  const others = people.filter((p) => p.role === "LEAD" && p.accepted && !p.left && p.accountId !== own);
  const actions: Column<Person> = {
    key: "actions",
    head: <span className="sr-only">What can be done</span>,
    align: "right",
    cell: (person) => (
      <Actions
        person={person}
        own={person.accountId === own}
        mayStepBack={others.length > 0}
        removing={remove.isPending}
        grading={study.stage === "GRADING"}
        onAsk={(what) => setAsked({ what, person })}
        onRemove={() => remove.mutate(person.accountId)}
      />
    ),
  };
  return (
    <>
      <Table
        caption="People of the study"
        onOneLine
        rows={people}
        rowKey={(p) => p.accountId}
        columns={[...COLUMNS, actions]}
      />
      <Trouble error={remove.error} className="mt-2" />
      {asked && <Asking asked={asked} onClose={() => setAsked(undefined)} />}
    </>
  );
}

const COLUMNS: Column<Person>[] = [
  { key: "name", head: "Name", rowHeader: true, sortBy: (p) => p.name, cell: (p) => p.name },
  { key: "sign-in", head: "Signs in as", sortBy: (p) => p.signInName, cell: (p) => p.signInName },
  {
    key: "role",
    head: "Here",
    sortBy: (p) => ROLES[p.role],
    cell: (p) => (p.role === "LEAD" && p.grades ? "leads, and grades" : ROLES[p.role]),
  },
  {
    key: "state",
    head: "Account",
    cell: (p) => (
      <>
        {account(p)}
        {p.mailTrouble !== undefined && <span className="block text-sm text-clay">No mail: {p.mailTrouble}.</span>}
      </>
    ),
  },
];

function account(person: Person) {
  if (person.left) {
    return "has left";
  }
  if (!person.accepted) {
    return "was asked, has not accepted yet";
  }
  return person.hasPassword ? "can sign in" : "has not signed in yet";
}

type ActionsProps = {
  person: Person;
  own: boolean;
  mayStepBack: boolean;
  removing: boolean;
  /** Whether its round is open: whoever grades in it must not know who wrote what. */
  grading: boolean;
  onAsk: (what: Asked["what"]) => void;
  onRemove: () => void;
};

function Actions({ person, own, mayStepBack, removing, grading, onAsk, onRemove }: ActionsProps) {
  const leads = person.role === "LEAD" && person.accepted;
  if (leads) {
    return own && mayStepBack && !person.grades ? <Button onClick={() => onAsk("step-back")}>Step back</Button> : null;
  }
  if (grading && person.grades) {
    return <span className="text-sm text-ink-soft">may lead once the round is closed</span>;
  }
  return (
    <span className="inline-flex gap-2">
      {person.accepted && !person.left && (
        <>
          <Button aria-label={`Let ${person.name} lead`} onClick={() => onAsk("lead")}>
            Let lead
          </Button>
          <Button aria-label={`Hand over to ${person.name}`} onClick={() => onAsk("hand-over")}>
            Hand over
          </Button>
        </>
      )}
      {person.role !== "RATER" && (
        <Button disabled={removing} aria-label={`Take out ${person.name}`} onClick={onRemove}>
          Take out
        </Button>
      )}
    </span>
  );
}

/** Says what comes of it. */
function Asking({ asked, onClose }: { asked: Asked; onClose: () => void }) {
  const study = useStudy();
  const lead = useLetLead(study.id);
  const handOver = useHandOver(study.id);
  const stepBack = useStepBack(study.id);
  const { name, accountId } = asked.person;
  const navigate = useNavigate();
  const done = { onSuccess: onClose };
  // What a lead sees is not theirs any more.
  const gone = { onSuccess: () => void navigate("/") };
  const WAYS = {
    lead: {
      title: `Let ${name} lead`,
      words: `${name} sees names, measures and all grades from then on, and can change whatever you can. Whoever leads is not dealt sheets.`,
      action: "Let them lead",
      go: () => lead.mutate(accountId, done),
    },
    "hand-over": {
      title: `Hand over to ${name}`,
      words: `${name} leads the study from then on. You read it, once its round is closed, and cannot take it back yourself.`,
      action: "Hand it over",
      go: () => handOver.mutate(accountId, gone),
    },
    "step-back": {
      title: "Step back",
      words: "The others lead the study from then on. You read it, once its round is closed.",
      action: "Step back",
      go: () => stepBack.mutate(undefined, gone),
    },
  };
  const way = WAYS[asked.what];
  return (
    <Confirm
      title={way.title}
      open
      onOpenChange={(open) => !open && onClose()}
      action={way.action}
      busy={lead.isPending || handOver.isPending || stepBack.isPending}
      onConfirm={way.go}
    >
      <p>{way.words}</p>
      <Trouble error={lead.error ?? handOver.error ?? stepBack.error} className="mt-2" />
    </Confirm>
  );
}
