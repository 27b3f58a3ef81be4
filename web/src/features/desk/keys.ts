/** The keys at the desk: one list, from which the help is made. */

export type KeyGroup = { title: string; keys: [key: string, what: string][] };

export const KEY_GROUPS: KeyGroup[] = [
  {
    title: "In the table",
    keys: [
      ["arrows", "move; Home and End to the first or last answer"],
      ["0 – 9", "give the level, or choose what the ruler shows by its number"],
      ["x", "not applicable"],
      ["y, h, u", "of this grade: sure, fairly sure, unsure"],
      ["Delete", "take away what stands there"],
      ["w", "write why; Escape goes back to the table"],
      ["k", "key points, and back to the grades"],
      ["Page Up, Page Down", "scroll the answer in focus"],
    ],
  },
  {
    title: "Reading",
    keys: [
      ["v", "all answers, two of them, one"],
      ["i", "pin the answer in focus, or let it go"],
      ["d", "its text, its changes, its files; with Shift, of all answers"],
      ["a", "changes inline, or side by side"],
      ["g", "compare its code with another answer's"],
      ["t", "scroll answers together"],
      ["f", "fold all sections and blocks, and open them"],
      ["p", "the prompt"],
      ["b", "the starting code"],
      ["q", "search all answers; Enter goes on, Escape ends it"],
    ],
  },
  {
    title: "Remarks",
    keys: [
      ["l", "point at lines: arrows move, Shift takes more of them, Escape ends it"],
      ["r", "remark on the lines pointed at or selected, or on the whole answer"],
      ["m", "go through the remarks: Enter opens one, Delete removes it"],
    ],
  },
  {
    title: "The sheet",
    keys: [
      ["Ctrl Z", "undo; with Shift, do it again"],
      ["s", "send the sheet in; then, go to the next"],
      ["Tab", "to the answers and back"],
      ["?", "this list"],
    ],
  },
];
