// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { ApiProblem } from "../api/client";
import { AddButton } from "../ui/AddButton";
import { CopyButton } from "../ui/CopyButton";
import { DraftSign, DraftTrouble } from "../ui/DraftSign";
import { Confirm } from "../ui/Dialog";
import { Choice, Field, NumberField, Tick } from "../ui/Field";
import { FigureText, IntervalRow, sign } from "../ui/IntervalRow";
import { Lines } from "../ui/Lines";
import { Markdown } from "../ui/Markdown";
import { Failure, Query, WORKED_OUT } from "../ui/Query";
import { ReasonDialog } from "../ui/ReasonDialog";
import { Table } from "../ui/Table";
import type { DraftInHand } from "../ui/useDraft";
import { useKept } from "../ui/useKept";

afterEach(cleanup);

describe("Table", () => {
  type Row = { name: string; grades: number };
  const rows: Row[] = [
    { name: "Tove", grades: 9 },
    { name: "Åse", grades: 10 },
    { name: "Juri", grades: 100 },
  ];
  const shownRows = () => screen.getAllByRole("rowheader").map((cell) => cell.textContent);
  const table = () =>
    render(
      <Table
        caption="Raters"
        rows={rows}
        rowKey={(r) => r.name}
        columns={[
          { key: "name", head: "Name", rowHeader: true, sortBy: (r) => r.name, cell: (r) => r.name },
          { key: "grades", head: "Grades", sortBy: (r) => r.grades, cell: (r) => r.grades },
          { key: "other", head: "Other", cell: () => "–" },
        ]}
      />,
    );

  it("stands as it was given until somebody sorts it", () => {
    table();
    expect(shownRows()).toEqual(["Tove", "Åse", "Juri"]);
    expect(screen.getAllByRole("columnheader").map((h) => h.getAttribute("aria-sort"))).toEqual([null, null, null]);
  });

  it("sorts numbers as numbers, up and then down", async () => {
    table();
    await userEvent.click(screen.getByRole("button", { name: "Grades" }));
    expect(shownRows()).toEqual(["Tove", "Åse", "Juri"]);
    expect(screen.getByRole("columnheader", { name: /Grades/ }).getAttribute("aria-sort")).toBe("ascending");
    await userEvent.click(screen.getByRole("button", { name: /Grades/ }));
    expect(shownRows()).toEqual(["Juri", "Åse", "Tove"]);
    expect(screen.getByRole("columnheader", { name: /Grades/ }).getAttribute("aria-sort")).toBe("descending");
  });

  it("sorts names as people do, and another column starts upwards", async () => {
    table();
    await userEvent.click(screen.getByRole("button", { name: "Grades" }));
    await userEvent.click(screen.getByRole("button", { name: "Name" }));
    expect(shownRows()).toEqual(["Åse", "Juri", "Tove"]);
  });

  it("offers no sorting where there is no order, and leaves the rows it was given alone", async () => {
    table();
    expect(screen.queryByRole("button", { name: "Other" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Name" }));
    expect(rows.map((r) => r.name)).toEqual(["Tove", "Åse", "Juri"]);
  });
});

describe("NumberField", () => {
  function Held({ onNumber }: { onNumber: (n: number | undefined) => void }) {
    const [value, setValue] = useState<number | undefined>(5);
    return (
      <NumberField
        label="Margin"
        value={value}
        onNumber={(n) => {
          onNumber(n);
          setValue(n);
        }}
      />
    );
  }

  it("lets a number be typed through all that is not one yet", async () => {
    const onNumber = vi.fn();
    render(<Held onNumber={onNumber} />);
    const field = screen.getByLabelText("Margin");
    await userEvent.clear(field);
    await userEvent.type(field, "2.50");
    expect(onNumber.mock.calls.map(([n]: unknown[]) => n)).toEqual([undefined, 2, 2, 2.5, 2.5]);
    expect(field).toHaveProperty("value", "2.50");
  });

  it("says that a word is none, hands it on to nobody and goes back to what stood there", async () => {
    const onNumber = vi.fn();
    render(<Held onNumber={onNumber} />);
    const field = screen.getByLabelText("Margin");
    await userEvent.type(field, "x");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByText("must be a number")).toBeTruthy();
    expect(onNumber).not.toHaveBeenCalled();
    await userEvent.tab();
    expect(field).toHaveProperty("value", "5");
  });
});

describe("fields", () => {
  it("are read out with their hint and error", () => {
    render(<Field label="Title" hint="What it is called." error="must be there" value="" readOnly />);
    const field = screen.getByLabelText("Title");
    const said = (field.getAttribute("aria-describedby") ?? "")
      .split(" ")
      .map((id) => document.getElementById(id)?.textContent);
    expect(said).toEqual(["What it is called.", "must be there"]);
    expect(field.getAttribute("aria-invalid")).toBe("true");
  });

  it("offer one of a list", async () => {
    const onValue = vi.fn();
    render(
      <Choice
        label="Stance"
        value="MUST"
        options={[
          { value: "MUST", label: "must contain" },
          { value: "NOT", label: "must not" },
        ]}
        onValue={onValue}
      />,
    );
    await userEvent.selectOptions(screen.getByLabelText("Stance"), "must not");
    expect(onValue.mock.calls).toEqual([["NOT"]]);
  });

  it("can be ticked by their words", async () => {
    const onTick = vi.fn();
    render(<Tick label="I grade too" hint="You see no more than any rater." checked={false} onTick={onTick} />);
    await userEvent.click(screen.getByText("I grade too"));
    expect(onTick.mock.calls).toEqual([[true]]);
  });
});

describe("Lines", () => {
  it("adds, changes and takes out one line, and leaves the others", async () => {
    const onChange = vi.fn();
    render(<Lines legend="Areas" one="Area" values={["back end", "database"]} onChange={onChange} />);
    await userEvent.click(screen.getByRole("button", { name: "Add an area" }));
    await userEvent.click(screen.getByRole("button", { name: "Take out area 1" }));
    await userEvent.type(screen.getByLabelText("Area 2"), "s");
    expect(onChange.mock.calls).toEqual([
      [["back end", "database", ""]],
      [["database"]],
      [["back end", "databases"], "Areas 1"],
    ]);
  });
});

describe("what is saved of a draft", () => {
  function inHand(change: Partial<DraftInHand<string>>): DraftInHand<string> {
    return {
      value: "",
      status: "saved",
      errors: [],
      message: undefined,
      theirs: undefined,
      canUndo: false,
      canRedo: false,
      change: vi.fn(),
      undo: vi.fn(),
      redo: vi.fn(),
      settle: vi.fn(),
      flush: () => Promise.resolve(),
      errorOf: () => undefined,
      ...change,
    };
  }

  it.each([
    ["saved", "All saved"],
    ["waiting", "Saving …"],
    ["unreachable", "No connection: kept in this browser, sent when it is back"],
    ["conflict", "Not saved: changed elsewhere"],
    ["refused", "Not saved"],
  ] as const)("is said when it is %s", (status, words) => {
    render(<DraftSign draft={inHand({ status })} />);
    expect(screen.getByRole("status").textContent).toBe(words);
  });

  it("offers undo and redo only where there is something", async () => {
    const draft = inHand({ canUndo: true });
    render(<DraftSign draft={draft} />);
    await userEvent.click(screen.getByRole("button", { name: "Undo" }));
    await userEvent.click(screen.getByRole("button", { name: "Redo" }));
    expect(draft.undo).toHaveBeenCalledOnce();
    expect(draft.redo).not.toHaveBeenCalled();
  });

  it("leaves a conflict to the writer", async () => {
    const draft = inHand({ status: "conflict" });
    render(<DraftTrouble draft={draft} what="The brief" />);
    const alert = screen.getByRole("alert");
    expect(alert.textContent).toContain("The brief was changed in another window");
    await userEvent.click(within(alert).getByRole("button", { name: "Keep what is here" }));
    await userEvent.click(within(alert).getByRole("button", { name: "Take what is there" }));
    expect(vi.mocked(draft.settle).mock.calls).toEqual([["mine"], ["theirs"]]);
  });

  it("says what is wrong with what was refused, field by field", () => {
    const errors = [{ field: "rule.margin", message: "must be at least 0" }];
    render(<DraftTrouble draft={inHand({ status: "refused", message: "It is not valid.", errors })} what="It" />);
    expect(screen.getByRole("alert").textContent).toBe("It is not valid.rule.margin must be at least 0");
  });

  it("says nothing while all is well", () => {
    const { container } = render(<DraftTrouble draft={inHand({})} what="It" />);
    expect(container.textContent).toBe("");
  });
});

describe("a step that cannot be undone", () => {
  it("is asked for, and can be left", async () => {
    const onConfirm = vi.fn();
    const onOpenChange = vi.fn();
    render(
      <Confirm title="Open the round?" open onOpenChange={onOpenChange} action="Open it" onConfirm={onConfirm}>
        <p>Sheets are handed out.</p>
      </Confirm>,
    );
    const dialog = screen.getByRole("dialog", { name: "Open the round?" });
    expect(dialog.textContent).toContain("Sheets are handed out.");
    await userEvent.click(within(dialog).getByRole("button", { name: "Leave it as it is" }));
    expect(onOpenChange).toHaveBeenCalledWith(false);
    expect(onConfirm).not.toHaveBeenCalled();
    await userEvent.click(within(dialog).getByRole("button", { name: "Open it" }));
    expect(onConfirm).toHaveBeenCalledOnce();
  });
});

describe("a view that could not be fetched", () => {
  const refusal = (status: number) =>
    new ApiProblem({ type: "x", title: "Internal words", status, detail: "Internal words" });

  it.each([
    [404, "There is no such page, or it is not yours to see."],
    [403, "This opens to raters when the lead closes the round."],
  ])("tells of %d no more than there is to tell", (status, words) => {
    render(<Failure error={refusal(status)} what="the study" onRetry={vi.fn()} />);
    expect(screen.getByRole("alert").textContent).toBe(words);
  });

  it("can be tried again", async () => {
    const retry = vi.fn();
    render(<Failure error={refusal(500)} what="the study" onRetry={retry} />);
    await userEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(retry).toHaveBeenCalledOnce();
  });
});

describe("figures", () => {
  it("are never shown without their interval or the reason for none", () => {
    const words = (figure: object) => render(<FigureText figure={figure} decimals={2} />).container.textContent;
    expect(words({ value: 0.71, low: 0.6, high: 0.8 })).toBe("0.71 0.60 to 0.80");
    expect(words({ value: 0.71, noIntervalReason: "one prompt" })).toBe("0.71 no interval: one prompt");
    expect(words({ undefinedReason: "nobody graded it" })).toBe("none: nobody graded it");
  });

  it("are drawn inside their axis, also those beyond its ends", () => {
    const axis = { from: 0, to: 100, decimals: 0, marks: [{ at: 50, label: "half" }] };
    const { container } = render(<IntervalRow axis={axis} figure={{ value: 120, low: -30, high: 150 }} />);
    const [, , interval] = container.querySelectorAll("line");
    expect(interval?.getAttribute("x1")).toBe("8");
    expect(interval?.getAttribute("x2")).toBe("292");
    expect(container.querySelector("circle")?.getAttribute("cx")).toBe("292");
    expect(container.querySelectorAll("line")[1]?.getAttribute("x1")).toBe("150");
  });

  it("give each candidate a shape besides its pigment", () => {
    const signs = [0, 1, 2, 3, 4].map(sign);
    expect(new Set(signs.map((s) => s.shape)).size).toBe(5);
    expect(new Set(signs.map((s) => s.pigment)).size).toBe(5);
    expect(sign(5)).toEqual(sign(0));
  });
});

describe("ReasonDialog", () => {
  it("asks before what was written is dropped", async () => {
    const onClose = vi.fn();
    render(
      <ReasonDialog
        title="Set it aside?"
        maxLength={100}
        action="Do it"
        busy={false}
        error={undefined}
        onReason={vi.fn()}
        onClose={onClose}
      >
        <p>It stays.</p>
      </ReasonDialog>,
    );
    await userEvent.type(screen.getByLabelText(/Why/), "Two readings.");
    await userEvent.keyboard("{Escape}");
    expect(onClose).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole("button", { name: "Write on" }));
    expect(screen.getByLabelText(/Why/)).toHaveProperty("value", "Two readings.");
    await userEvent.keyboard("{Escape}");
    await userEvent.click(screen.getByRole("button", { name: "Drop it" }));
    expect(onClose).toHaveBeenCalledOnce();
  });
});

describe("what is long in coming", () => {
  it("says so after a while, and how long it has been", () => {
    vi.useFakeTimers();
    try {
      function Page() {
        const never = useQuery({ queryKey: ["never"], queryFn: () => new Promise<string>(() => undefined) });
        return (
          <Query of={never} what="the agreement" long={WORKED_OUT}>
            {(text) => <p>{text}</p>}
          </Query>
        );
      }
      render(
        <QueryClientProvider client={new QueryClient()}>
          <Page />
        </QueryClientProvider>,
      );
      expect(screen.getByRole("status").textContent).toBe("Fetching the agreement …");
      expect(screen.queryByText(/worked out once/)).toBeNull();
      act(() => void vi.advanceTimersByTime(4_100));
      expect(screen.getByText(/worked out once.* 4 s so far/)).toBeDefined();
    } finally {
      vi.useRealTimers();
    }
  });
});

describe("what adds a row", () => {
  it("leads into what it added, wherever that stands", async () => {
    function Rows() {
      const [rows, setRows] = useState(["one"]);
      return (
        <fieldset>
          {rows.map((row, i) => (
            <input key={i} aria-label={row} defaultValue="" />
          ))}
          <AddButton onAdd={() => setRows([...rows, "two"])}>Add a row</AddButton>
        </fieldset>
      );
    }
    render(<Rows />);
    await userEvent.click(screen.getByRole("button", { name: "Add a row" }));
    expect(document.activeElement).toBe(screen.getByLabelText("two"));
  });
});

describe("copying", () => {
  const clipboard = (value: object | undefined) => vi.stubGlobal("navigator", { ...navigator, clipboard: value });
  afterEach(() => vi.unstubAllGlobals());

  it("says so once it is done", async () => {
    const copied: string[] = [];
    clipboard({ writeText: (text: string) => Promise.resolve(copied.push(text)) });
    render(<CopyButton text="the link" label="Copy" />);
    act(() => screen.getByRole("button", { name: "Copy" }).click());
    expect(await screen.findByRole("button", { name: "Copied" })).toBeTruthy();
    expect(copied).toEqual(["the link"]);
  });

  it.each([
    ["there is no clipboard, as without TLS", undefined],
    ["people forbade it", { writeText: () => Promise.reject(new Error("forbidden")) }],
  ])("leaves the text to be taken by hand where %s", async (_, value) => {
    clipboard(value);
    render(<CopyButton text={"two\nlines"} label="Copy" />);
    act(() => screen.getByRole("button", { name: "Copy" }).click());
    const text = await screen.findByLabelText<HTMLTextAreaElement>(/Take it by hand/);
    expect(text.value).toBe("two\nlines");
    expect(screen.getByRole("button", { name: "Copy" })).toBeTruthy();
  });
});

describe("text from elsewhere", () => {
  it("has what cannot be seen spelled out, in code as well", () => {
    render(<Markdown text={"a\u202eb\n\n```java\nint a\u200b;\n```\n"} />);
    expect(document.body.textContent).toContain("a⟦202E⟧b");
    expect(document.body.textContent).toContain("int a⟦200B⟧;");
  });
});

describe("useKept", () => {
  function Chooser() {
    const { chosen, choose } = useKept<{ each: string }>("plan.s1");
    return <button onClick={() => choose({ each: "three" })}>{chosen.each ?? "all"}</button>;
  }

  it("keeps what was chosen when the page is left and come back to", async () => {
    const { unmount } = render(<Chooser />);
    await userEvent.click(screen.getByRole("button", { name: "all" }));
    unmount();
    render(<Chooser />);
    expect(screen.getByRole("button").textContent).toBe("three");
  });

  it("begins anew where what was kept cannot be read", () => {
    sessionStorage.setItem("plan.s1", "{");
    render(<Chooser />);
    expect(screen.getByRole("button").textContent).toBe("all");
  });
});
