import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { currentOf, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { DraftHead } from "../../ui/DraftHead";
import { Area, Choice } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { type DraftInHand, useDraft } from "../../ui/useDraft";
import { ProofOrTrouble } from "../account";
import { oneMemo, putMemo, useDropMemo, useMemosChanged, useSignMemo, type Which } from "./api";
import { Contents } from "./Contents";
import { HandOut } from "./HandOut";
import { Part } from "./Part";
import { Words } from "./Words";

type Memo = Schemas["MemoView"];
type Section = Schemas["MemoWords"]["section"];
type Written = Pick<Schemas["WriteMemo"], "names" | "change" | "words">;

const NAMES: { value: Schemas["WriteMemo"]["names"]; label: string }[] = [
  { value: "BY_NAME", label: "by name" },
  { value: "PSEUDONYM", label: "by a letter" },
  { value: "NOT_AT_ALL", label: "not at all" },
];

const writtenOf = ({ names, change, words, version }: Schemas["KeptDraft"]) => ({
  value: { names, change, words },
  version,
});

/** A memo while it is written: saved as it is typed, on figures that live. */
export function DraftMemo({ which, memo }: { which: Which; memo: Memo }) {
  const client = useQueryClient();
  const changed = useMemosChanged(which.studyId);
  const [reading, setReading] = useState(false);
  const draft = useDraft<Written>({
    name: `memo.${which.studyId}.${which.number}`,
    ...writtenOf({ ...memo, change: memo.head.change }),
    save: async (value, version) => {
      const saved = await putMemo(which, { version, ...value });
      // Whoever comes back to the page goes on from what is kept now, and signs that.
      client.setQueryData(
        oneMemo(which).queryKey,
        (before) =>
          before && {
            ...before,
            names: saved.names,
            words: saved.words,
            version: saved.version,
            head: { ...before.head, change: saved.change },
          },
      );
      // People’s names stand in what the server puts together.
      if (saved.names !== memo.names) {
        void changed();
      }
      return writtenOf(saved);
    },
    current: (problem) => writtenOf(currentOf<Schemas["KeptDraft"]>(problem)),
  });
  return (
    <>
      <DraftHead draft={draft} title={`Memo, version ${which.number}`} what="The memo" />
      <p className="mb-3 max-w-3xl text-ink-soft">
        Figures as of {moment(memo.document.at)}; they live until it is signed. What you write is Markdown.
      </p>
      <Settings which={which} draft={draft} reading={reading} onReading={setReading} />
      <div className="mt-4 grid gap-x-10 lg:grid-cols-[minmax(0,46rem)_13rem]">
        <article>
          {memo.document.parts.map((part) => (
            <Part
              key={part.section}
              which={which}
              part={part}
              words={
                reading ? (
                  <Words text={textOf(draft.value, part.section)} />
                ) : (
                  <WordsField section={part.section} title={part.title} parts={memo.document.parts} draft={draft} />
                )
              }
            />
          ))}
          <Steps which={which} memo={memo} draft={draft} />
        </article>
        <Contents document={memo.document} />
      </div>
    </>
  );
}

const textOf = (value: Written, section: Section) => value.words.find((w) => w.section === section)?.text ?? "";

type WordsFieldProps = {
  section: Section;
  title: string;
  parts: Schemas["MemoPart"][];
  draft: DraftInHand<Written>;
};

/** With other words in one part; in the order of the parts, and without empty ones, as the server keeps them. */
function withWords({ words }: Written, section: Section, text: string, parts: Schemas["MemoPart"][]) {
  const place = (of: Section) => parts.findIndex((p) => p.section === of);
  return [...words.filter((w) => w.section !== section), { section, text }]
    .filter((w) => w.text.trim() !== "")
    .sort((a, b) => place(a.section) - place(b.section));
}

function WordsField({ section, title, parts, draft }: WordsFieldProps) {
  const text = textOf(draft.value, section);
  return (
    <Area
      label={`Your words: ${title}`}
      labelHidden
      placeholder="Your words"
      className="my-3 print:hidden"
      maxLength={LIMITS.MemoWords.text}
      value={text}
      onChange={(e) =>
        draft.change({ ...draft.value, words: withWords(draft.value, section, e.target.value, parts) }, section)
      }
    />
  );
}

type SettingsProps = {
  which: Which;
  draft: DraftInHand<Written>;
  reading: boolean;
  onReading: (reading: boolean) => void;
};

function Settings({ which, draft, reading, onReading }: SettingsProps) {
  return (
    <div className="max-w-3xl print:hidden">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <Choice
          label="Raters are called"
          className="w-44"
          value={draft.value.names}
          options={NAMES}
          onValue={(names) => draft.change({ ...draft.value, names })}
        />
        <Button onClick={() => onReading(!reading)}>{reading ? "Write on" : "Read it as it will stand"}</Button>
      </div>
      <p className="mt-1 text-sm text-ink-soft">
        That goes for all that the study says; names in your own words stay as you write them.
      </p>
      {which.number > 1 && (
        <Area
          label="What this version says otherwise, and why"
          className="mt-3"
          maxLength={LIMITS.WriteMemo.change}
          value={draft.value.change}
          error={draft.errorOf("change")}
          onChange={(e) => draft.change({ ...draft.value, change: e.target.value }, "change")}
        />
      )}
      <div className="mt-3">
        <HandOut which={which} signed={false} lead />
      </div>
    </div>
  );
}

type StepsProps = { which: Which; memo: Memo; draft: DraftInHand<Written> };

function Steps({ which, memo, draft }: StepsProps) {
  const [step, setStep] = useState<"sign" | "drop">();
  const sign = useSignMemo(which);
  const drop = useDropMemo(which);
  const navigate = useNavigate();
  const close = () => setStep(undefined);
  const signIt = () => sign.mutate({ version: memo.version, revision: memo.document.revision }, { onSettled: close });
  return (
    <section className="mt-10 border-t border-rule pt-5 print:hidden">
      <h2 className="mb-2">When it says what it should</h2>
      <div className="flex flex-wrap gap-3">
        <Button tone="primary" disabled={draft.status !== "saved" || sign.isPending} onClick={() => setStep("sign")}>
          Sign it …
        </Button>
        <Button onClick={() => setStep("drop")}>Drop this draft …</Button>
      </div>
      <Trouble error={drop.error} className="mt-3" />
      <ProofOrTrouble error={sign.error} onProved={signIt} onClose={() => sign.reset()} className="mt-3" />
      <Confirm
        title={`Sign version ${which.number}`}
        open={step === "sign"}
        onOpenChange={close}
        action="Sign it"
        busy={sign.isPending}
        onConfirm={signIt}
      >
        <p>
          Words and figures are frozen as you read them here, with the archive that they rest on. A signed memo cannot
          be changed; a new version can say something else.
        </p>
      </Confirm>
      <Confirm
        title="Drop this draft"
        open={step === "drop"}
        onOpenChange={close}
        action="Drop it"
        busy={drop.isPending}
        onConfirm={() => drop.mutate(undefined, { onSuccess: () => void navigate("../recommendation/memo") })}
      >
        <p>What you wrote in it is gone then, and what raters hold against it. Signed versions stay.</p>
      </Confirm>
    </section>
  );
}
