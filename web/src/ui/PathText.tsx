import { Fragment } from "react";
import { spelledOut } from "./spelledOut";

/** A file's path: where it does not fit it breaks between its parts, and within a part only if that alone is too long. */
export function PathText({ path }: { path: string }) {
  return (
    <span className="break-words">
      {spelledOut(path)
        .split("/")
        .map((part, i) => (
          <Fragment key={i}>
            {i > 0 && (
              <>
                /<wbr />
              </>
            )}
            {part}
          </Fragment>
        ))}
    </span>
  );
}
