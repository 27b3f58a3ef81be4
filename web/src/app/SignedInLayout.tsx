import { DropdownMenu } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, Navigate, Outlet, useLocation, useNavigate } from "react-router";
import { at } from "../api/base";
import { actFor, type Schemas } from "../api/client";
import { THEMES, themeFromWire, themeOnWire, useSession, useSignOut, useWriteOwn } from "../features/account";
import { showTimesIn } from "../ui/format";
import { Button } from "../ui/Button";
import { Failure } from "../ui/Query";
import { followTheme, type ThemeChoice, useTheme } from "../ui/theme";
import { type Copied, useCopy } from "../ui/useCopy";

/** Everything behind the sign-in: the line at the top, and the page below it. */
export function SignedInLayout() {
  const session = useSession();
  const location = useLocation();
  const [owner, setOwner] = useState<Schemas["AccountView"]>();
  const preferences = session.data?.preferences;
  usePreferredTheme(preferences?.theme);
  // Before any page below shows a time.
  showTimesIn(preferences?.timeZone);
  // One question that failed does not take a page away whose answer is known from before.
  if (session.data === undefined) {
    return session.isError ? (
      <Failure error={session.error} what="your session" onRetry={() => void session.refetch()} />
    ) : (
      <p role="status" className="p-6 text-ink-soft">
        Fetching your session …
      </p>
    );
  }
  const account = session.data.account;
  // Before any page below asks for anything.
  actFor(owner?.id ?? account?.id);
  if (!account) {
    const next = location.pathname + location.search + location.hash;
    return <Navigate to={next === "/" ? "/sign-in" : `/sign-in?next=${encodeURIComponent(next)}`} replace />;
  }
  if (!owner) {
    setOwner(account);
  } else if (owner.id !== account.id) {
    return <SomebodyElse owner={owner.displayName} now={account.displayName} onAsk={() => void session.refetch()} />;
  }
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-vellum focus:p-2">
        Skip to the page
      </a>
      <header className="flex h-11 print:hidden shrink-0 items-center gap-4 border-b border-rule px-4">
        <Link to="/" className="flex items-center gap-2 font-serif text-lg font-semibold">
          <img src={at("/mossbank.svg")} alt="" width={22} height={22} />
          Mossbank
        </Link>
        <span className="ml-auto" />
        <AccountMenu account={account} preferences={preferences} />
      </header>
      <div id="page" className="flex min-h-0 flex-1 flex-col">
        <Outlet context={account} />
      </div>
    </div>
  );
}

/** How often a page whose owner is not signed in any more asks whether they are again, in milliseconds. */
const ASK_AGAIN = 3_000;

type SomebodyElseProps = { owner: string; now: string; onAsk: () => void };

/** In another window of this browser somebody else has signed in: this page is not theirs, and goes on when its owner is back. */
function SomebodyElse({ owner, now, onAsk }: SomebodyElseProps) {
  useEffect(() => {
    const timer = setInterval(onAsk, ASK_AGAIN);
    return () => clearInterval(timer);
  }, [onAsk]);
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1>Somebody else signed in here</h1>
      <p className="my-3">
        {now} has signed in in another window of this browser, and this page is {owner}’s. What {owner} gave and was not
        sent yet is kept, and goes on when {owner} signs in again.
      </p>
      <Button tone="primary" onClick={() => window.location.assign(at("/"))}>
        Go on as {now}
      </Button>
    </main>
  );
}

const ITEM =
  "block w-full cursor-pointer px-3 py-1.5 text-left outline-none data-[highlighted]:bg-heather-wash data-[state=checked]:font-semibold";

/** What somebody chose in another browser holds here as well. */
function usePreferredTheme(theme: Schemas["Preferences"]["theme"]): void {
  useEffect(() => {
    if (theme !== undefined) {
      followTheme(themeFromWire(theme));
    }
  }, [theme]);
}

const COPY_WORDS: Record<Copied, string> = {
  "not yet": "Copy a link to this page",
  copied: "Copied",
  refused: "Not copied: take it from the address line",
};

/** Stays open, to say whether it is copied. */
function CopyItem() {
  const [copied, copy] = useCopy(window.location.href);
  return (
    <DropdownMenu.Item
      className={ITEM}
      onSelect={(event) => {
        event.preventDefault();
        copy();
      }}
    >
      <span aria-live="polite">{COPY_WORDS[copied]}</span>
    </DropdownMenu.Item>
  );
}

type AccountMenuProps = {
  account: Schemas["AccountView"];
  preferences: Schemas["Preferences"] | undefined;
};

function AccountMenu({ account, preferences }: AccountMenuProps) {
  const { theme, setTheme } = useTheme();
  const write = useWriteOwn();
  const choose = (chosen: ThemeChoice) => {
    setTheme(chosen);
    write.mutate({
      displayName: account.displayName,
      preferences: { ...preferences, theme: themeOnWire(chosen) },
    });
  };
  const signOut = useSignOut();
  const navigate = useNavigate();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="rounded-leaf px-2 py-1 hover:bg-vellum">
        {account.displayName} <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-48 rounded-leaf border border-edge bg-vellum py-1 shadow-lg"
        >
          <DropdownMenu.Label className="px-3 py-1 text-sm text-ink-soft">Look</DropdownMenu.Label>
          <DropdownMenu.RadioGroup value={theme}>
            {THEMES.map((t) => (
              <DropdownMenu.RadioItem key={t.value} value={t.value} className={ITEM} onSelect={() => choose(t.value)}>
                {t.label}
                {theme === t.value && <span aria-hidden="true"> •</span>}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          <CopyItem />
          <DropdownMenu.Item className={ITEM} onSelect={() => window.print()}>
            Print this page
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          <DropdownMenu.Item className={ITEM} onSelect={() => void navigate("/account")}>
            Your account
          </DropdownMenu.Item>
          {account.administrator && (
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate("/administration")}>
              Accounts of all
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item className={ITEM} onSelect={() => signOut.mutate()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
