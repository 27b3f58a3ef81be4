import type { Schemas } from "../../api/client";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { useStudy } from "../study";
import type { Which } from "./api";
import { Afterwards } from "./Afterwards";
import { Contents } from "./Contents";
import { Dissent } from "./Dissent";
import { HandOut } from "./HandOut";
import { Links } from "./Links";
import { Part } from "./Part";
import { Words } from "./Words";

type Memo = Schemas["MemoView"];

/** A memo to be read: signed, or as its lead has written it so far. */
export function SignedMemo({ which, memo }: { which: Which; memo: Memo }) {
  const study = useStudy();
  const lead = study.role === "LEAD";
  const { signed } = memo.head;
  return (
    <>
      <h1>Memo, version {which.number}</h1>
      <p className="mt-1 mb-3 max-w-3xl text-ink-soft">
        {signed
          ? `Signed by ${signed.by}, ${moment(signed.at)}.`
          : `Being written by the lead; figures as of ${moment(memo.document.at)}.`}
      </p>
      {memo.head.change && (
        <Note tone="info" className="mb-3 max-w-3xl [overflow-wrap:anywhere]">
          {memo.head.change}
        </Note>
      )}
      <HandOut which={which} signed={signed !== undefined} lead={lead} />
      {memo.checksum && (
        <p className="mt-2 max-w-3xl text-sm text-ink-soft">
          Its figures rest on the archive with the SHA-256 checksum{" "}
          <code className="font-mono break-all">{memo.checksum}</code>.
        </p>
      )}
      <div className="mt-2 grid gap-x-10 lg:grid-cols-[minmax(0,46rem)_13rem]">
        <div>
          {signed && <Afterwards which={which} memo={memo} lead={lead} />}
          <article>
            {memo.document.parts.map((part) => (
              <Part key={part.section} which={which} part={part} words={<Words text={part.words} />} />
            ))}
          </article>
          {signed ? lead && <Links which={which} links={memo.links} /> : <Dissent which={which} said={memo.dissent} />}
        </div>
        <Contents document={memo.document} />
      </div>
    </>
  );
}
