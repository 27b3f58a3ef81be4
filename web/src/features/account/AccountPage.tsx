import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { type ThemeChoice, useTheme } from "../../ui/theme";
import { useTitle } from "../../ui/useTitle";
import { changePassword, ownAccount, themeOnWire, useWriteOwn, waysIn } from "./api";
import { NewPasswordFields, useNewPassword } from "./NewPassword";
import { OwnMail } from "./OwnMail";
import { OwnProviders } from "./OwnProviders";
import { OwnSessions } from "./OwnSessions";
import { THEMES } from "./themes";

/** One's own account: what one is called, how pages look, a new password, and where one is signed in. */
export function AccountPage() {
  const own = useQuery(ownAccount());
  const ways = useQuery(waysIn());
  useTitle("Your account");
  return (
    <main className="mx-auto w-full max-w-2xl px-6 py-8">
      <Query of={own} what="your account">
        {({ account, preferences, sessions }) => (
          <>
            <h1>{account.displayName}</h1>
            <p className="mt-1 text-ink-soft">
              You sign in as {account.signInName}.{account.administrator && " You look after the accounts here."}
            </p>
            <OwnWays account={account} preferences={preferences} />
            {account.hasPassword && ways.data?.passwords !== false && <PasswordChange />}
            <OwnMail />
            <OwnProviders />
            <OwnSessions sessions={sessions} />
          </>
        )}
      </Query>
    </main>
  );
}

const BROWSER = "";

const ZONES = [{ value: BROWSER, label: "As in this browser" }].concat(
  Intl.supportedValuesOf("timeZone").map((zone) => ({ value: zone, label: zone.replaceAll("_", " ") })),
);

type OwnWaysProps = { account: Schemas["AccountView"]; preferences: Schemas["Preferences"] };

/** The name, the look and the zone of times: all three with one press. */
function OwnWays({ account, preferences }: OwnWaysProps) {
  const write = useWriteOwn();
  const { theme, setTheme } = useTheme();
  const [displayName, setDisplayName] = useState(account.displayName);
  const [look, setLook] = useState<ThemeChoice>(theme);
  const [timeZone, setTimeZone] = useState(preferences.timeZone ?? BROWSER);
  const problem = write.error instanceof ApiProblem ? write.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const zone = timeZone === BROWSER ? {} : { timeZone };
    write.mutate(
      { displayName, preferences: { theme: themeOnWire(look), ...zone } },
      { onSuccess: () => setTheme(look) },
    );
  };
  return (
    <form onSubmit={submit} className="mt-6 grid max-w-sm gap-3">
      <Field
        label="Your name, as others see it"
        hint="What is on record from before keeps the name of then."
        autoComplete="name"
        required
        maxLength={LIMITS.WriteOwn.displayName}
        value={displayName}
        error={problem?.errorOf("displayName")}
        onChange={(e) => setDisplayName(e.target.value)}
      />
      <Choice label="Look" value={look} options={THEMES} onValue={setLook} />
      <Choice label="Times are shown in" value={timeZone} options={ZONES} onValue={setTimeZone} />
      <Trouble error={problem && problem.errors.length > 0 ? null : write.error} />
      {write.isSuccess && (
        <Note tone="good" role="status">
          Kept; it holds wherever you sign in.
        </Note>
      )}
      <Button tone="primary" type="submit" disabled={write.isPending} className="justify-self-start">
        Keep it so
      </Button>
    </form>
  );
}

function PasswordChange() {
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: changePassword,
    onSuccess: (own) => client.setQueryData(ownAccount().queryKey, own),
  });
  const [current, setCurrent] = useState("");
  const chosen = useNewPassword();
  const problem = change.error instanceof ApiProblem ? change.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen.agrees()) {
      change.mutate(
        { current, password: chosen.password },
        {
          onSuccess: () => {
            setCurrent("");
            chosen.clear();
          },
        },
      );
    }
  };
  return (
    <section className="mt-10">
      <h2>Another password</h2>
      <p className="mt-1 mb-3 text-ink-soft">Everywhere else you are signed out when you change it.</p>
      <form onSubmit={submit} className="grid max-w-sm gap-3">
        <Field
          label="The one you have now"
          type="password"
          autoComplete="current-password"
          required
          value={current}
          error={problem?.errorOf("current")}
          onChange={(e) => setCurrent(e.target.value)}
        />
        <NewPasswordFields of={chosen} label="The new one" problem={problem} />
        {change.isError && !problem?.errors.length && (
          <Note tone="trouble" role="alert">
            {change.error.message}
          </Note>
        )}
        {change.isSuccess && (
          <Note tone="good" role="status">
            Your password is changed.
          </Note>
        )}
        <Button tone="primary" type="submit" disabled={change.isPending} className="justify-self-start">
          Change the password
        </Button>
      </form>
    </section>
  );
}
