import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Field, Tick } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { chooseMail, forgetMail, ownMail } from "./api";

/** Where mail reaches somebody, and what they want of it; nothing where no mail goes out. */
export function OwnMail() {
  const own = useQuery(ownMail());
  if (!own.data?.on) {
    return null;
  }
  return (
    <section className="mt-10">
      <h2>Mail</h2>
      <p className="mt-1 mb-3 text-ink-soft">
        It says how much waits, and where; what is in a study stays in it. Without an address, nothing comes.
      </p>
      <MailForm key={own.data.mail?.address ?? ""} mail={own.data.mail} />
    </section>
  );
}

function MailForm({ mail }: { mail: Schemas["OwnMail"] | undefined }) {
  const client = useQueryClient();
  const taken = { onSuccess: (now: Schemas["OwnMailView"]) => client.setQueryData(ownMail().queryKey, now) };
  const choose = useMutation({ mutationFn: chooseMail, ...taken });
  const forget = useMutation({ mutationFn: forgetMail, ...taken });
  const [address, setAddress] = useState(mail?.address ?? "");
  const [digest, setDigest] = useState(mail?.digest ?? true);
  const [reminders, setReminders] = useState(mail?.reminders ?? true);
  const problem = choose.error instanceof ApiProblem ? choose.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    choose.mutate({ address, digest, reminders });
  };
  return (
    <form onSubmit={submit} className="grid max-w-sm gap-3">
      <Field
        label="Your address"
        type="email"
        autoComplete="email"
        required
        maxLength={LIMITS.ChooseMail.address}
        value={address}
        error={problem?.errorOf("address")}
        onChange={(e) => setAddress(e.target.value)}
      />
      <Tick label="A letter in the morning, on days when something waits" checked={digest} onTick={setDigest} />
      <Tick label="Reminders of leads" checked={reminders} onTick={setReminders} />
      {mail !== undefined && <StateOfMail mail={mail} />}
      <Trouble error={problem && problem.errors.length > 0 ? null : (choose.error ?? forget.error)} />
      <div className="flex gap-2">
        <Button tone="primary" type="submit" disabled={choose.isPending}>
          {mail === undefined ? "Take this address" : "Keep it so"}
        </Button>
        {mail !== undefined && (
          <Button disabled={forget.isPending} onClick={() => forget.mutate()}>
            Forget the address
          </Button>
        )}
      </div>
    </form>
  );
}

function StateOfMail({ mail }: { mail: Schemas["OwnMail"] }) {
  if (mail.trouble !== undefined) {
    return <Note tone="trouble">No mail reaches it: {mail.trouble}.</Note>;
  }
  return mail.confirmed ? (
    <Note tone="good">Mail reaches you here.</Note>
  ) : (
    <Note tone="caution">A letter is on its way. Follow its link, and mail comes from then on.</Note>
  );
}
