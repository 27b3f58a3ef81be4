import { useState } from "react";
import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { CopyButton } from "../../ui/CopyButton";
import { Choice } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { useMakeLink, useWithdrawLink, type Which } from "./api";

const LIVES = [
  { value: "7", label: "a week" },
  { value: "30", label: "30 days" },
  { value: "90", label: "90 days" },
  { value: "365", label: "a year" },
];

/** Links with which somebody without an account reads this version, and nothing else. */
export function Links({ which, links }: { which: Which; links: Schemas["LinkView"][] }) {
  const [days, setDays] = useState("30");
  const make = useMakeLink(which);
  const withdraw = useWithdrawLink(which);
  const address = make.data && new URL(at(make.data.address), location.origin).href;
  return (
    <section className="mt-10 border-t border-rule pt-5 print:hidden">
      <h2>For somebody without an account</h2>
      <p className="mt-1 mb-3 max-w-2xl text-ink-soft">
        A link opens this version for reading, and nothing else; search engines are told to leave it alone. It can be
        withdrawn.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="It works for" className="w-36" value={days} options={LIVES} onValue={setDays} />
        <Button disabled={make.isPending} onClick={() => make.mutate(Number(days))}>
          Make a link
        </Button>
      </div>
      <Trouble error={make.error ?? withdraw.error} className="mt-3" />
      {address && (
        <Note tone="good" role="status" className="mt-3">
          <p>This is the only time it is shown:</p>
          <p className="my-1 font-mono text-sm break-all">{address}</p>
          <CopyButton text={address} label="Copy the link" />
        </Note>
      )}
      <ul className="mt-4 grid gap-2">
        {links.map((link) => (
          <li key={link.id} className="flex flex-wrap items-center gap-3">
            <span>
              Made {moment(link.madeAt)} by {link.madeBy}, {stateOf(link)}
            </span>
            {stateOf(link).startsWith("works") && (
              <Button
                aria-label={`Withdraw the link made ${moment(link.madeAt)}`}
                disabled={withdraw.isPending}
                onClick={() => withdraw.mutate(link.id)}
              >
                Withdraw
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function stateOf(link: Schemas["LinkView"]): string {
  if (link.withdrawnAt) {
    return `withdrawn ${moment(link.withdrawnAt)}`;
  }
  return new Date(link.expiresAt) > new Date()
    ? `works until ${moment(link.expiresAt)}`
    : `ran out ${moment(link.expiresAt)}`;
}
