import { createContext, useContext } from "react";
import type { PlacedRemark } from "../remarks";

type Lines = NonNullable<PlacedRemark["remark"]["lines"]>;

/** Where lines are counted: in the answer's text, or in a file on one side. */
export type Ground = { part: Lines["part"]; path?: string };

/** Where remarks stand: in a margin beside the first of their lines, or, where there is no room for one, below the last. */
export type Margin = "beside" | "below";

export type LineNotes = { remarks: PlacedRemark[]; onOpen: (id: string) => void };

/** The remarks of the answer that is being read, for the lines where they stand. */
export const NotesContext = createContext<LineNotes>({ remarks: [], onOpen: () => undefined });

/** Apart from the remarks, as it changes with the layout, and then only remarks shall be drawn anew, not all lines. */
export const MarginContext = createContext<Margin>("below");

const isOn = (lines: Lines, ground: Ground) => lines.part === ground.part && lines.path === ground.path;

export type NotesAt = {
  /** Those that begin in the lines. */
  starting: PlacedRemark[];
  /** Those that end in the lines. */
  ending: PlacedRemark[];
  /** Whether any remark touches them. */
  touched: boolean;
};

/** The remarks on some lines. */
export function useNotesAt(ground: Ground, from: number, to: number): NotesAt {
  const { remarks } = useContext(NotesContext);
  const here = remarks.filter(({ remark }) => remark.lines && isOn(remark.lines, ground));
  const within = (line: number | undefined) => line !== undefined && line >= from && line <= to;
  return {
    starting: here.filter(({ remark }) => within(remark.lines?.from)),
    ending: here.filter(({ remark }) => within(remark.lines?.to)),
    touched: here.some(({ remark }) => remark.lines && remark.lines.from <= to && remark.lines.to >= from),
  };
}
