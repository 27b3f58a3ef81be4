import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { OUTCOMES } from "../run";

type Prompt = Schemas["PromptView"];
type Answer = Schemas["AnswerSummary"];

/** Which prompts are shown; an empty choice shows all. */
export type AnswerFilter = { kind: string; area: string; outcome: string };

/** The filter stands in the address, so that it can be sent on and the back button takes it back. */
export function useAnswerFilter(): [AnswerFilter, (next: AnswerFilter) => void] {
  const [search, setSearch] = useSearchParams();
  const filter = {
    kind: search.get("kind") ?? "",
    area: search.get("area") ?? "",
    outcome: search.get("outcome") ?? "",
  };
  return [filter, (next) => setSearch(Object.fromEntries(Object.entries(next).filter(([, value]) => value !== "")))];
}

/** Prompts of the kind and area that have an answer with the outcome. */
export function rowsOf(prompts: Prompt[], answers: Answer[], filter: AnswerFilter): Prompt[] {
  const ended = new Set(answers.filter((a) => a.outcome === filter.outcome).map((a) => a.promptId));
  return prompts.filter(
    (p) =>
      (filter.kind === "" || p.kind.id === filter.kind) &&
      (filter.area === "" || p.content.areas.includes(filter.area)) &&
      (filter.outcome === "" || ended.has(p.id)),
  );
}

type FiltersProps = {
  prompts: Prompt[];
  answers: Answer[];
  filter: AnswerFilter;
  onFilter: (next: AnswerFilter) => void;
};

export function Filters({ prompts, answers, filter, onFilter }: FiltersProps) {
  const kinds = new Map(prompts.map((p) => [p.kind.id, p.kind.name]));
  const areas = [...new Set(prompts.flatMap((p) => p.content.areas))].sort((a, b) => a.localeCompare(b, "en"));
  const counts = Map.groupBy(answers, (a) => a.outcome);
  const outcomes = [...counts].map(([value, of]) => ({ value, label: `${OUTCOMES[value]}, ${of.length}` }));
  const all = { value: "", label: "all" };
  return (
    <div className="mb-4 flex flex-wrap items-end gap-4">
      <Choice
        label="Kind"
        value={filter.kind}
        options={[all, ...[...kinds].map(([value, label]) => ({ value, label }))]}
        onValue={(kind) => onFilter({ ...filter, kind })}
      />
      {areas.length > 0 && (
        <Choice
          label="Area"
          value={filter.area}
          options={[all, ...areas.map((value) => ({ value, label: value }))]}
          onValue={(area) => onFilter({ ...filter, area })}
        />
      )}
      <Choice
        label="How it ended"
        value={filter.outcome}
        options={[all, ...outcomes]}
        onValue={(outcome) => onFilter({ ...filter, outcome })}
      />
    </div>
  );
}
