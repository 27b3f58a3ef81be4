import type { Schemas } from "../../api/client";
import { itemWords } from "./words";

/** A picture as a trial tells of it; one at the desk may be held back. */
type Told = Pick<Schemas["PictureOfPage"], "width" | "height" | "step" | "text"> & {
  isHeld?: boolean;
  unread?: boolean;
};

type Seen = { items: Schemas["CheckItem"][]; pictures: Told[] };

/** Where the picture is at a place of those that a trial tells of. */
export type PictureAt = (place: number) => string;

/** How one answer's page stood after one step, at one size. */
export type PageCell = {
  words: string;
  good: boolean;
  /** What stood on the page, for those who cannot see it. */
  text: string;
  width: number;
  height: number;
  /** Absent where there is none, or it is held back. */
  src?: string;
  isHeld: boolean;
  /** Whether something stands on it that the server could not read as text; raters are not told. */
  unread: boolean;
};

/** What an item of a page is called by: its size and its step. */
const stepOf = (name: string) => /^(\d+) × (\d+), step (\d+): (.*)$/s.exec(name);

/** How a page stood after the step that an item is about; nothing of an item that is about no page. */
export function pageCell(item: Schemas["CheckItem"], { pictures }: Seen, at: PictureAt): PageCell | undefined {
  const [, width, height, step] = (item.sort === "PAGE" && stepOf(item.name)) || [];
  if (width === undefined || height === undefined || step === undefined) {
    return undefined;
  }
  const place = pictures.findIndex(
    (p) => p.width === Number(width) && p.height === Number(height) && p.step === Number(step) - 1,
  );
  const told = pictures[place];
  const words = itemWords(item);
  return {
    words: item.why === "" ? words : `${words}, ${item.why}`,
    good: item.outcome === "PASSED",
    text: told?.text ?? "",
    width: Number(width),
    height: Number(height),
    isHeld: told?.isHeld ?? false,
    unread: told?.unread ?? false,
    ...(told && told.isHeld !== true && { src: at(place) }),
  };
}

/** One step of a page at one size, with how it stood for each answer. */
export type PageRow = { key: string; name: string; cells: (PageCell | undefined)[] };

/** The steps that were asked of pages, in their order, with the pages of several answers side by side. */
export function pageRows(seen: (Seen | undefined)[], at: ((place: number) => string)[]): PageRow[] {
  const names = [
    ...new Set(
      seen.flatMap((s) => s?.items.filter((i) => i.sort === "PAGE" && stepOf(i.name)).map((i) => i.name) ?? []),
    ),
  ];
  return names.map((name) => ({
    key: name,
    name,
    cells: seen.map((one, i) => {
      const item = one?.items.find((other) => other.sort === "PAGE" && other.name === name);
      const place = at[i];
      return one && item && place ? pageCell(item, one, place) : undefined;
    }),
  }));
}

/** For a reader aloud. */
export const altOf = (cell: PageCell): string =>
  cell.text.trim() === "" ? "The page, without any text" : `The page. On it: ${cell.text.slice(0, 300)}`;
