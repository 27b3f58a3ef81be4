import { type FormEvent } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";
import { useStand } from "./api";
import { standsAt } from "./GivenLevels";
import { LevelChoice } from "./LevelChoice";

type Written = { level: number; reason: string; id: string };

/** Where a rater stands after the talk: the grade they gave stays, and is told beside. */
export function StanceForm({ split }: { split: Schemas["SplitPage"] }) {
  const stand = useStand(split.id);
  const { chosen, choose } = useKept<Written>(`stance.${split.id}`);
  const own = split.raters.find((r) => r.own);
  const level = chosen.level ?? (own && (standsAt(own) ?? own.level));
  const reason = chosen.reason ?? "";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (level === undefined) {
      return;
    }
    const id = chosen.id ?? crypto.randomUUID();
    choose({ id });
    stand.mutate({ id, level, reason }, { onSuccess: () => choose({ reason: "", id: crypto.randomUUID() }) });
  };
  return (
    <form onSubmit={submit} className="border-l-4 border-moss pl-3">
      <LevelChoice
        legend="Where do you stand now?"
        levels={split.criterion.levels}
        value={level}
        noteOf={(l) => (l === own?.level ? "you gave it" : undefined)}
        onLevel={(level) => choose({ level })}
      />
      <Area
        label="Why"
        hint="The grade you gave stays as it is. Once all stand at one level, the split is settled there."
        className="mt-2"
        rows={2}
        maxLength={LIMITS.Stand.reason}
        value={reason}
        onChange={(e) => choose({ reason: e.target.value })}
      />
      <Trouble error={stand.error} className="mt-2" />
      <Button
        type="submit"
        tone="primary"
        className="mt-2"
        disabled={stand.isPending || level === undefined || reason.trim() === ""}
      >
        {level !== undefined && level === own?.level ? `Keep ${level}` : "Stand there"}
      </Button>
    </form>
  );
}
