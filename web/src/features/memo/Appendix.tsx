import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { appendixOf, type Which } from "./api";
import { MemoTable } from "./MemoTable";

/** As many rows as the server gives at once. */
const WINDOW = 100;

/** Every answer's grades, fetched when they are asked for. */
export function Appendix({ which }: { which: Which }) {
  const [from, setFrom] = useState<number>();
  return from === undefined ? (
    <Button className="print:hidden" onClick={() => setFrom(0)}>
      Show every answer’s grades
    </Button>
  ) : (
    <Rows which={which} from={from} onPage={setFrom} />
  );
}

type RowsProps = { which: Which; from: number; onPage: (from: number) => void };

function Rows({ which, from, onPage }: RowsProps) {
  const appendix = useQuery(appendixOf(which, from));
  return (
    <Query of={appendix} what="the grades" long={WORKED_OUT}>
      {(view) => {
        const last = view.from + view.table.rows.length;
        return (
          <>
            <MemoTable table={view.table} />
            {view.rows > WINDOW && (
              <p className="flex flex-wrap items-center gap-3 text-sm">
                <span role="status">
                  {view.from + 1} to {last} of {count(view.rows, "answer", "answers")}; all of them stand in what is
                  handed out
                </span>
                <Button disabled={view.from === 0} onClick={() => onPage(Math.max(0, view.from - WINDOW))}>
                  Earlier
                </Button>
                <Button disabled={last >= view.rows} onClick={() => onPage(last)}>
                  Later
                </Button>
              </p>
            )}
          </>
        );
      }}
    </Query>
  );
}
