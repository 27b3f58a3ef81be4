import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Table } from "../../ui/Table";

type Rater = Schemas["GradingProgress"]["raters"][number];
type Prompt = Schemas["PromptTitle"];

type PromptTableProps = { prompts: Prompt[]; raters: Rater[]; linked: boolean };

const sheetsOf = (raters: Rater[], promptIds: string[]) =>
  raters.flatMap((r) => r.sheets.filter((s) => promptIds.includes(s.promptId) && s.withdrawn === undefined));

/** How many raters have sent in each prompt, and with whom it still is. */
export function PromptTable({ prompts, raters, linked }: PromptTableProps) {
  const awaited = (promptId: string) =>
    raters.filter((r) => sheetsOf([r], [promptId]).some((s) => !s.sentAt)).map((r) => r.name);
  const ready = (promptId: string) => raters.filter((r) => sheetsOf([r], [promptId]).some((s) => s.sentAt)).length;
  return (
    <Table
      caption="Progress by prompt"
      rows={prompts}
      rowKey={(p) => p.id}
      columns={[
        {
          key: "prompt",
          head: "Prompt",
          rowHeader: true,
          sortBy: (p) => p.title,
          cell: (p) => (
            <>
              {linked ? <Link to={`../answers/${p.id}`}>{p.title}</Link> : p.title}
              {p.faulty && <span className="ml-2 border-b-2 border-clay text-sm">set aside</span>}
            </>
          ),
        },
        { key: "kind", head: "Kind", sortBy: (p) => p.kind.name, cell: (p) => p.kind.name },
        { key: "sent", head: "Raters", align: "right", sortBy: (p) => ready(p.id), cell: (p) => ready(p.id) },
        {
          key: "awaited",
          head: "Still with",
          cell: (p) => awaited(p.id).join(", ") || <span className="text-ink-soft">nobody</span>,
        },
      ]}
    />
  );
}

/** The same by kind of prompt; those set aside are left out. */
export function KindTable({ prompts, raters }: { prompts: Prompt[]; raters: Rater[] }) {
  const byKind = [
    ...Map.groupBy(
      prompts.filter((p) => !p.faulty),
      (p) => p.kind.name,
    ),
  ].map(([name, of]) => {
    const sheets = sheetsOf(
      raters,
      of.map((p) => p.id),
    );
    return { name, prompts: of.length, sheets: sheets.length, sent: sheets.filter((s) => s.sentAt).length };
  });
  return (
    <Table
      caption="Progress by kind"
      rows={byKind}
      rowKey={(k) => k.name}
      columns={[
        { key: "kind", head: "Kind", rowHeader: true, sortBy: (k) => k.name, cell: (k) => k.name },
        { key: "prompts", head: "Prompts", align: "right", sortBy: (k) => k.prompts, cell: (k) => k.prompts },
        {
          key: "sent",
          head: "Sheets sent in",
          align: "right",
          sortBy: (k) => (k.sheets === 0 ? 0 : k.sent / k.sheets),
          cell: (k) => `${k.sent} of ${k.sheets}`,
        },
      ]}
    />
  );
}
