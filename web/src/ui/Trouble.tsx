import { Note } from "./Note";

/** Says why something could not be done, once it was tried. */
export function Trouble({ error, className }: { error: Error | null; className?: string }) {
  return error ? (
    <Note tone="trouble" role="alert" {...(className && { className })}>
      {error.message}
    </Note>
  ) : null;
}
