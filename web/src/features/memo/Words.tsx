import { Markdown } from "../../ui/Markdown";

/** What the lead wrote, as it will stand. */
export function Words({ text }: { text: string }) {
  return text.trim() === "" ? null : (
    <Markdown text={text} below="section" className="my-3 border-l-[3px] border-rule pl-3" />
  );
}
