import { createContext, useContext } from "react";
import type { PlacedRemark } from "../useDesk";

type Lines = NonNullable<PlacedRemark["remark"]["lines"]>;

/** Where lines are counted: in the answer's text, or in a file on one side. */
export type Ground = { part: Lines["part"]; path?: string };

export type LineNotes = { remarks: PlacedRemark[]; onOpen: (id: string) => void };

/** The remarks of the answer that is being read, for the lines where they stand. */
export const NotesContext = createContext<LineNotes>({ remarks: [], onOpen: () => undefined });

const isOn = (lines: Lines, ground: Ground) => lines.part === ground.part && lines.path === ground.path;

/** The remarks that end within some lines, and whether any touches them. */
export function useNotesAt(ground: Ground, from: number, to: number): { ending: PlacedRemark[]; touched: boolean } {
  const { remarks } = useContext(NotesContext);
  const here = remarks.filter(({ remark }) => remark.lines && isOn(remark.lines, ground));
  return {
    ending: here.filter(({ remark }) => remark.lines && remark.lines.to >= from && remark.lines.to <= to),
    touched: here.some(({ remark }) => remark.lines && remark.lines.from <= to && remark.lines.to >= from),
  };
}
