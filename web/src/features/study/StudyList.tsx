import { useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice, Field, Tick } from "../../ui/Field";
import { day } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useSettledText } from "../../ui/useSettledText";
import { useTyped } from "../../ui/useTyped";
import { bringBack, putAway, studiesLike, type StudyFilter, studyKeys } from "./api";
import { CopyStudy } from "./CopyStudy";
import { DeleteStudy } from "./DeleteStudy";

type Line = Schemas["StudyLine"];

const STAGES: Record<Line["stage"], string> = {
  PREPARING: "being prepared",
  GRADING: "raters are grading",
  CLOSED: "round closed",
};

const ROLES: Record<Line["role"], string> = { LEAD: "You lead it", RATER: "You grade in it", READER: "You read it" };

const ORDERS = [
  { value: "NEWEST" as const, label: "Newest first" },
  { value: "OLDEST" as const, label: "Oldest first" },
  { value: "TITLE" as const, label: "By title" },
];

const ANY = "" as const;

const STATES = [
  { value: ANY, label: "Any" },
  { value: "PREPARING" as const, label: "Being prepared" },
  { value: "GRADING" as const, label: "Being graded" },
  { value: "CLOSED" as const, label: "Closed" },
];

/** With as many, they are looked for by their titles. */
const MANY = 6;

/** What is looked for stands in the address, so that coming back finds it again. */
function useFilter(): [StudyFilter, (change: Partial<StudyFilter>) => void] {
  const [search, setSearch] = useSearchParams();
  const stage = STATES.find((s) => s.value === search.get("state"))?.value ?? ANY;
  const order = ORDERS.find((o) => o.value === search.get("order"))?.value ?? "NEWEST";
  const filter = { part: search.get("part") ?? "", stage, order, away: search.get("away") === "true" };
  const change = (some: Partial<StudyFilter>) => {
    const next = { ...filter, ...some };
    const kept = new URLSearchParams();
    for (const [name, value] of [
      ["part", next.part],
      ["state", next.stage],
      ["order", next.order === "NEWEST" ? "" : next.order],
      ["away", next.away ? "true" : ""],
    ] as const) {
      if (value !== "") {
        kept.set(name, value);
      }
    }
    setSearch(kept, { replace: true });
  };
  return [filter, change];
}

/** One's studies: what waits in each, found by title, state and order, put away and brought back. */
export function StudyList() {
  const [filter, change] = useFilter();
  const asked = { ...filter, part: useSettledText(filter.part) };
  const studies = useInfiniteQuery(studiesLike(asked));
  return (
    <Query of={studies} what="your studies">
      {({ pages }) => {
        const rows = pages.flatMap((p) => p.studies);
        const first = pages[0];
        const narrowed = filter.part !== "" || filter.stage !== ANY || filter.away;
        return (
          <>
            {(narrowed || (first?.total ?? 0) >= MANY || (first?.away ?? 0) > 0) && (
              <Narrowing filter={filter} away={first?.away ?? 0} onChange={change} />
            )}
            {rows.length === 0 && (
              <p>
                {narrowed
                  ? "No study is like this."
                  : "There is no study yet. Begin one here, or bring one in from an archive; its format is described with it."}
              </p>
            )}
            <ul>
              {rows.map((study) => (
                <OneStudy key={study.id} study={study} />
              ))}
            </ul>
            {studies.hasNextPage && (
              <Button
                className="mt-3"
                disabled={studies.isFetchingNextPage}
                onClick={() => void studies.fetchNextPage()}
              >
                Show more
              </Button>
            )}
          </>
        );
      }}
    </Query>
  );
}

type NarrowingProps = { filter: StudyFilter; away: number; onChange: (change: Partial<StudyFilter>) => void };

function Narrowing({ filter, away, onChange }: NarrowingProps) {
  const [part, type] = useTyped(filter.part, (text) => onChange({ part: text }));
  return (
    <div className="mb-3 flex flex-wrap items-end gap-3">
      <Field label="Find by title" type="search" className="w-64" value={part} onChange={(e) => type(e.target.value)} />
      <Choice label="State" value={filter.stage} options={STATES} onValue={(stage) => onChange({ stage })} />
      <Choice label="Order" value={filter.order} options={ORDERS} onValue={(order) => onChange({ order })} />
      {(away > 0 || filter.away) && (
        <Tick
          label={`Those put away (${away})`}
          className="mb-2"
          checked={filter.away}
          onTick={(ticked) => onChange({ away: ticked })}
        />
      )}
    </div>
  );
}

function pathOf(study: Line): string {
  return `/studies/${study.id}/${study.role === "LEAD" ? "brief" : "recommendation"}`;
}

function OneStudy({ study }: { study: Line }) {
  const closed = study.role !== "LEAD" && study.stage !== "CLOSED";
  return (
    <li className="flex items-baseline gap-3 border-t border-rule py-3 last:border-b">
      <div className="min-w-0 flex-1">
        {closed ? (
          <span className="font-serif text-lg break-words">{study.title}</span>
        ) : (
          <Link to={pathOf(study)} className="font-serif text-lg break-words text-tarn underline underline-offset-4">
            {study.title}
          </Link>
        )}
        <p className="text-sm text-ink-soft">
          {ROLES[study.role]} · since {day(study.createdAt)} · {STAGES[study.stage]}
        </p>
        {study.waits !== undefined && <p className="text-sm text-clay">{study.waits}</p>}
      </div>
      {study.role === "LEAD" && <StudyMenu study={study} />}
    </li>
  );
}

const ITEM = "block w-full cursor-pointer px-3 py-1.5 text-left outline-none data-[highlighted]:bg-heather-wash";

function StudyMenu({ study }: { study: Line }) {
  const client = useQueryClient();
  const [copying, setCopying] = useState(false);
  const [deleting, setDeleting] = useState(false);
  const move = useMutation({
    mutationFn: () => (study.putAwayAt === undefined ? putAway(study.id) : bringBack(study.id)),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
  return (
    <div className="shrink-0 text-right">
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`More for ${study.title}`}
          className="rounded-leaf border border-edge bg-vellum px-2.5 py-0.5 hover:border-ink"
        >
          More <span aria-hidden="true">▾</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-50 min-w-44 rounded-leaf border border-edge bg-vellum py-1 shadow-lg"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => setCopying(true)}>
              Make a second one
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => move.mutate()}>
              {study.putAwayAt === undefined ? "Put away" : "Bring back"}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setDeleting(true)}>
              Delete …
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Trouble error={move.error} className="mt-1" />
      {copying && <CopyStudy study={study} onClose={() => setCopying(false)} />}
      {deleting && <DeleteStudy study={study} onClose={() => setDeleting(false)} />}
    </div>
  );
}
