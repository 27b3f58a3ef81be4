import { Note } from "./Note";

/** Why something is not shown, where a text was too much to work through. */
export function Limits({ limits }: { limits: readonly string[] }) {
  return limits.length === 0 ? null : (
    <Note tone="caution" className="my-2">
      {limits.join(" ")}
    </Note>
  );
}
