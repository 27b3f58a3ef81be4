import { type KeyboardEvent, type Ref, useEffect, useId, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { lineSpan } from "../../ui/format";
import type { RemarkContent } from "./cells";
import type { Remarking } from "./view";

type Sheet = Schemas["SheetView"];

type RemarkFormProps = {
  sheet: Sheet;
  remarking: Remarking;
  onSave: (remark: RemarkContent) => void;
  onRemove: () => void;
  /** Puts the same remark, without its lines, on another answer. */
  onCopy: (column: number, remark: RemarkContent) => void;
  onClose: () => void;
};

function whereWords(lines: RemarkContent["lines"]): string {
  if (!lines) {
    return "as a whole";
  }
  const span = lineSpan(lines.from, lines.to);
  const side = lines.part === "BEFORE" ? ", before the change" : "";
  return lines.path === undefined ? span : `${lines.path}, ${span}${side}`;
}

/** What was typed in search of a trait, and ". ", may come before the words. */
const MOST_WORDS = LIMITS.RemarkContent.words - LIMITS.RemarkContent.trait - 2;

/** Traits that the words begin, or hold, those that begin with them first. */
function matching(traits: string[], words: string): string[] {
  const wanted = words.trim().toLocaleLowerCase();
  const begins = traits.filter((t) => t.toLocaleLowerCase().startsWith(wanted));
  const holds = traits.filter((t) => !begins.includes(t) && t.toLocaleLowerCase().includes(wanted));
  return [...begins, ...holds];
}

/** Quick entry: type to find a trait, Enter, words, Enter. A plus or minus first makes it a credit or a fault. */
/** A remark with the trait that was typed; what is typed and is no trait is words after all. */
function remarkOf(said: Omit<RemarkContent, "trait">, typed: string, traits: string[]): RemarkContent {
  const wanted = typed.trim();
  const trait = traits.find((t) => t.toLocaleLowerCase() === wanted.toLocaleLowerCase()) ?? "";
  return trait || !wanted
    ? { ...said, trait }
    : { ...said, trait, words: [wanted, said.words].filter(Boolean).join(". ") };
}

export function RemarkForm({ sheet, remarking, onSave, onRemove, onCopy, onClose }: RemarkFormProps) {
  const { editing, column } = remarking;
  const [stance, setStance] = useState<RemarkContent["stance"]>(editing?.remark.stance ?? "FAULT");
  const [typed, setTyped] = useState(editing?.remark.trait ?? "");
  const [words, setWords] = useState(editing?.remark.words ?? "");
  const wordsField = useRef<HTMLTextAreaElement>(null);

  const traits = [...new Set(sheet.criteria.flatMap((c) => c.traits))];
  const lines = editing ? editing.remark.lines : remarking.lines;
  const whole = remarkOf({ stance, words, ...(lines && { lines }) }, typed, traits);
  const sayable = whole.trait !== "" || whole.words.trim() !== "";
  const save = () => sayable && onSave(whole);

  const onTyped = (text: string) => {
    if (/^[+-]/.test(text)) {
      setStance(text.startsWith("+") ? "CREDIT" : "FAULT");
    }
    setTyped(text.replace(/^[+-]\s*/, ""));
  };
  const onChosen = (name: string | undefined) => {
    if (name !== undefined) {
      setTyped(name);
    }
    wordsField.current?.focus();
  };
  const onFormKey = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === "Escape") {
      event.preventDefault();
      onClose();
    } else if (event.key === "Enter" && event.ctrlKey) {
      event.preventDefault();
      save();
    }
  };

  return (
    <form
      aria-label={`Remark on answer ${(sheet.answers[column]?.number ?? 0).toString()}`}
      onKeyDown={onFormKey}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
      className="shrink-0 border-t-2 border-heather bg-vellum px-4 py-2"
    >
      <WhatIsRemarked sheet={sheet} column={column} lines={lines} editing={editing !== undefined} />
      <div className="flex flex-wrap items-start gap-2">
        <StanceField stance={stance} onStance={setStance} />
        <TraitField traits={traits} typed={typed} onTyped={onTyped} onChosen={onChosen} />
        <WordsField ref={wordsField} words={words} onWords={setWords} onKeep={save} />
        <Button type="submit" tone="primary" disabled={!sayable}>
          Keep
        </Button>
        <Button onClick={onClose}>Leave it</Button>
        {editing && <RemoveButton onRemove={onRemove} />}
      </div>
      {editing && sheet.answers.length > 1 && (
        <SameElsewhere sheet={sheet} column={column} onCopy={(to) => onCopy(to, whole)} />
      )}
    </form>
  );
}

type TraitFieldProps = {
  traits: string[];
  typed: string;
  onTyped: (text: string) => void;
  onChosen: (trait: string | undefined) => void;
};

/** Finds a trait by what is typed; Enter takes the one in focus, or none. */
function TraitField({ traits, typed, onTyped, onChosen }: TraitFieldProps) {
  const [at, setAt] = useState(0);
  const [choosing, setChoosing] = useState(false);
  const first = useRef<HTMLInputElement>(null);
  const list = useId();
  useEffect(() => first.current?.focus(), []);
  const found = matching(traits, typed);
  const choose = (name: string | undefined) => {
    setChoosing(false);
    onChosen(name);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      setChoosing(true);
      setAt((at + (event.key === "ArrowDown" ? 1 : -1) + found.length) % Math.max(found.length, 1));
    } else if (event.key === "Enter" && !event.ctrlKey) {
      choose(choosing && typed.trim() ? found[at] : undefined);
    } else {
      return;
    }
    event.preventDefault();
  };
  return (
    <div className="relative w-72">
      <input
        ref={first}
        role="combobox"
        aria-label="Trait"
        aria-expanded={choosing && found.length > 0}
        aria-controls={list}
        aria-autocomplete="list"
        aria-activedescendant={choosing && found[at] !== undefined ? `${list}-${at}` : undefined}
        autoComplete="off"
        placeholder="Type to find a trait; + or − first"
        maxLength={LIMITS.RemarkContent.trait}
        value={typed}
        onChange={(e) => {
          setAt(0);
          setChoosing(true);
          onTyped(e.target.value);
        }}
        onKeyDown={onKeyDown}
        onBlur={() => setChoosing(false)}
        className="w-full rounded-leaf border border-edge bg-paper px-2 py-1"
      />
      <TraitList id={list} found={found} at={at} hidden={!choosing || found.length === 0} onChosen={choose} />
    </div>
  );
}

type TraitListProps = { id: string; found: string[]; at: number; hidden: boolean; onChosen: (trait: string) => void };

function TraitList({ id, found, at, hidden, onChosen }: TraitListProps) {
  return (
    <ul
      id={id}
      role="listbox"
      aria-label="Traits"
      hidden={hidden}
      className="absolute bottom-full z-20 mb-1 max-h-60 w-full overflow-y-auto rounded-leaf border border-edge bg-vellum shadow-lg"
    >
      {found.map((name, i) => (
        <li
          key={name}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === at}
          onPointerDown={(e) => {
            e.preventDefault();
            onChosen(name);
          }}
          className={classes("cursor-pointer px-2 py-0.5", i === at && "bg-heather-wash")}
        >
          {name}
        </li>
      ))}
    </ul>
  );
}

type SameElsewhereProps = { sheet: Sheet; column: number; onCopy: (column: number) => void };

function SameElsewhere({ sheet, column, onCopy }: SameElsewhereProps) {
  return (
    <p className="mt-1.5 flex flex-wrap items-center gap-2 text-sm">
      The same holds for
      {sheet.answers.map((a, i) =>
        i === column ? null : (
          <Button key={a.id} className="!px-2 !py-0" onClick={() => onCopy(i)}>
            answer {a.number}
          </Button>
        ),
      )}
    </p>
  );
}

type StanceFieldProps = { stance: RemarkContent["stance"]; onStance: (stance: RemarkContent["stance"]) => void };

function StanceField({ stance, onStance }: StanceFieldProps) {
  return (
    <fieldset className="flex gap-3 py-1">
      <legend className="sr-only">Which way it points</legend>
      {(["FAULT", "CREDIT"] as const).map((s) => (
        <label key={s} className="flex items-center gap-1">
          <input type="radio" name="stance" checked={stance === s} onChange={() => onStance(s)} />
          {s === "FAULT" ? "fault −" : "credit +"}
        </label>
      ))}
    </fieldset>
  );
}

type WhatIsRemarkedProps = { sheet: Sheet; column: number; lines: RemarkContent["lines"]; editing: boolean };

function WhatIsRemarked({ sheet, column, lines, editing }: WhatIsRemarkedProps) {
  return (
    <p className="mb-1 text-sm">
      <strong>{editing ? "Change the remark" : "Remark"}</strong> on answer {sheet.answers[column]?.number},{" "}
      {whereWords(lines)}
      {lines && <code className="ml-2 text-ink-soft">{lines.quote.split("\n")[0]?.slice(0, 90)}</code>}
    </p>
  );
}

type WordsFieldProps = {
  ref: Ref<HTMLTextAreaElement>;
  words: string;
  onWords: (words: string) => void;
  onKeep: () => void;
};

function WordsField({ ref, words, onWords, onKeep }: WordsFieldProps) {
  return (
    <textarea
      ref={ref}
      aria-label="In words"
      rows={1}
      maxLength={MOST_WORDS}
      placeholder="In words; Enter keeps it"
      value={words}
      onChange={(e) => onWords(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === "Enter" && !e.shiftKey && !e.ctrlKey) {
          e.preventDefault();
          onKeep();
        }
      }}
      className="min-w-64 flex-1 resize-y rounded-leaf border border-edge bg-paper px-2 py-1"
    />
  );
}

function RemoveButton({ onRemove }: { onRemove: () => void }) {
  return (
    <Button tone="danger" onClick={onRemove}>
      Remove
    </Button>
  );
}
