import { inStudy, server } from "./page";
import { useQuery } from "@tanstack/react-query";
import { screen } from "@testing-library/react";
import type { Schemas } from "../api/client";
import { oneSheet } from "../features/desk/api";
import { SheetDesk } from "../features/desk/SheetDesk";
import { answerOn, aSheet } from "./sheet";

/** One thing that a check asked, which passed. */
export const item = (more: Partial<Schemas["CheckItem"]>): Schemas["CheckItem"] => ({
  sort: "RUN",
  name: "four fathoms",
  outcome: "PASSED",
  expected: "",
  came: "",
  why: "",
  ...more,
});

/** A desk on a sheet of two answers that were tried. */
export async function deskWith(trials: Schemas["TrialsOnSheet"], change: Partial<Schemas["SheetView"]> = {}) {
  const double = server();
  const answers = [answerOn("a", 1, { hasCode: true }), answerOn("b", 2, { hasCode: true })];
  double
    .on("GET /api/sheets/sheet", () => ({ body: aSheet({ tried: true, answers, ...change }) }))
    .on("GET /api/sheets/sheet/trials", () => ({ body: trials }))
    .on("GET /api/sheets/sheet/inputs", () => ({ body: [] }))
    .on("PUT /api/sheets/sheet/answers/a/works", () => ({ body: { revision: 1 } }))
    .on("PUT /api/sheets/sheet/time", () => ({ body: null }));
  inStudy(<Kept />);
  await screen.findByRole("grid");
  return double;
}

function Kept() {
  const sheet = useQuery({ ...oneSheet("sheet"), staleTime: Infinity });
  return sheet.data ? <SheetDesk sheet={sheet.data} accountId="me" fromCopy={false} /> : null;
}

export const panel = () => screen.findByRole("region", { name: "What came of trying the answers" });
