import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { count } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { type DealFrom, dealOf, useDeal } from "./api";

type Rater = Schemas["RaterProgress"];

const FROM: Record<DealFrom, { label: string; hint: string }> = {
  UNBEGUN: {
    label: "Sheets that nobody has begun",
    hint: "Evenly from those who have most; each answer keeps as many raters as it has.",
  },
  IN_ADDITION: {
    label: "A sheet for every prompt, beside the others",
    hint: "Nobody loses one; each answer gets a rater more, so agreement rests on more pairs.",
  },
};

const WAYS = ["UNBEGUN", "IN_ADDITION"] as const;

type DealDialogProps = { studyId: string; rater: Rater; raters: Rater[]; onClose: () => void };

/** Deals sheets to one rater, and shows before it is done who then has how many. */
export function DealDialog({ studyId, rater, raters, onClose }: DealDialogProps) {
  const [from, setFrom] = useState<DealFrom>("UNBEGUN");
  const body = { raterId: rater.raterId, from };
  const preview = useQuery(dealOf(studyId, body));
  const deal = useDeal(studyId);
  return (
    <Dialog title={`Deal sheets to ${rater.name}`} open onOpenChange={(open) => !open && onClose()}>
      <Ways from={from} onFrom={setFrom} />
      <Query of={preview} what="who would have how many">
        {(view) =>
          view.sheets === 0 ? <p>There is no such sheet for them.</p> : <Balance view={view} raters={raters} />
        }
      </Query>
      <Trouble error={deal.error} className="mt-2" />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={deal.isPending || (preview.data?.sheets ?? 0) === 0}
          onClick={() => deal.mutate(body, { onSuccess: onClose })}
        >
          Deal {count(preview.data?.sheets ?? 0, "sheet", "sheets")}
        </Button>
      </div>
    </Dialog>
  );
}

function Ways({ from, onFrom }: { from: DealFrom; onFrom: (from: DealFrom) => void }) {
  const name = useId();
  return (
    <fieldset className="mb-3 grid gap-2">
      <legend className="sr-only">Which sheets</legend>
      {WAYS.map((way) => (
        <label key={way} className="flex cursor-pointer gap-2">
          <input
            type="radio"
            name={name}
            className="mt-1.5 h-fit accent-moss"
            checked={from === way}
            onChange={() => onFrom(way)}
          />
          <span>
            {FROM[way].label}
            <span className="block text-sm text-ink-soft">{FROM[way].hint}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

type BalanceProps = { view: Pick<Schemas["DealView"], "loads" | "fewest" | "most">; raters: Rater[] };

/** Who has how many sheets, now and then. */
export function Balance({ view, raters }: BalanceProps) {
  const nameOf = new Map(raters.map((r) => [r.raterId, r.name]));
  return (
    <>
      <Table
        caption="Sheets by rater, now and then"
        rows={view.loads}
        rowKey={(l) => l.raterId}
        columns={[
          { key: "name", head: "Rater", rowHeader: true, cell: (l) => nameOf.get(l.raterId) ?? "" },
          { key: "before", head: "Sheets now", align: "right", cell: (l) => l.before },
          { key: "after", head: "Then", align: "right", cell: (l) => l.after },
        ]}
      />
      <p className="mt-2 text-sm text-ink-soft">
        Each prompt then has {view.fewest === view.most ? view.most : `${view.fewest} to ${view.most}`}{" "}
        {view.most === 1 ? "rater" : "raters"}.
      </p>
    </>
  );
}
