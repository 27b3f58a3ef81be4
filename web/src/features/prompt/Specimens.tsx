import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Markdown } from "../../ui/Markdown";
import { Query } from "../../ui/Query";
import { useStudy } from "../study";
import { specimensOfStudy } from "./api";

type Level = Schemas["SpecimenLevel"];

/** Answers that the prompt brought out of the bank; nothing where it brought none. */
export function Specimens({ promptId }: { promptId: string }) {
  const study = useStudy();
  const all = useQuery(specimensOfStudy(study.id));
  return (
    <Query of={all} what="what the bank brought along">
      {(specimens) => {
        const own = specimens.filter((s) => s.promptId === promptId);
        return own.length === 0 ? null : (
          <section>
            <h2 className="mb-1 text-base">Answers with levels</h2>
            <p className="mb-2 text-sm text-ink-soft">
              {own.length === 1 ? "One answer" : `${own.length} answers`} came out of the bank with it. Whoever
              calibrates by this prompt gets {own.length === 1 ? "it" : "them"} among the others, and the levels are the
              reference. No candidate gave {own.length === 1 ? "it, and it counts" : "them, and they count"} nowhere.
            </p>
            <ul>
              {own.map((s) => (
                <li key={s.id} className="border-t border-rule last:border-b">
                  <details>
                    <summary className="cursor-pointer py-1 text-sm">
                      Answer {s.place}: <SaidLevels levels={s.levels} />
                    </summary>
                    <ul className="mb-2 grid gap-1 text-sm">
                      {s.levels.map((level) => (
                        <li key={level.criterion} className="[overflow-wrap:anywhere]">
                          {words(level)}: {level.reason} <span className="text-ink-soft">({level.by})</span>
                        </li>
                      ))}
                    </ul>
                    <Markdown text={s.text} className="max-h-80 overflow-y-auto pb-2 text-sm" />
                  </details>
                </li>
              ))}
            </ul>
          </section>
        );
      }}
    </Query>
  );
}

const words = (level: Level) => `${level.criterion.replaceAll("-", " ")} ${level.level} of ${level.highestLevel}`;

/** At which levels an answer should stand, in a line. */
export function SaidLevels({ levels }: { levels: Level[] }) {
  return <>{levels.map(words).join(", ")}</>;
}
