import type { Schemas } from "../../api/client";
import { Note } from "../../ui/Note";

/** Says which prompts turned out faulty, so that no figure hides it. */
export function SetAsideNote({ setAside }: { setAside: Schemas["SetAsidePrompt"][] }) {
  if (setAside.length === 0) {
    return null;
  }
  return (
    <Note tone="caution" className="mt-3">
      <ul>
        {setAside.map((p) => (
          <li key={p.promptId}>
            “{p.title}” was set aside: {p.reason} Nothing here rests on it.
          </li>
        ))}
      </ul>
    </Note>
  );
}
