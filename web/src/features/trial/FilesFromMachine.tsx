import { useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Note } from "../../ui/Note";

type CheckFile = Schemas["CheckFile"];

/** What files hold as texts, and why some of them cannot be taken. */
export async function textsOf(chosen: File[]): Promise<{ files: CheckFile[]; refused: string[] }> {
  const files: CheckFile[] = [];
  const refused: string[] = [];
  for (const file of chosen) {
    const path = (file.webkitRelativePath || file.name).slice(0, LIMITS.CheckFile.path);
    try {
      const text = new TextDecoder("utf-8", { fatal: true }).decode(await file.arrayBuffer());
      if (text.length > LIMITS.CheckFile.text) {
        refused.push(`${path} is longer than ${LIMITS.CheckFile.text.toLocaleString("en")} characters`);
      } else {
        files.push({ path, text });
      }
    } catch {
      refused.push(`${path} is no text in UTF-8`);
    }
  }
  return { files, refused };
}

/** Files laid over others of the same path, the rest after them. */
export const laidOver = (files: CheckFile[], fresh: CheckFile[]): CheckFile[] => [
  ...files.map((f) => fresh.find((n) => n.path === f.path) ?? f),
  ...fresh.filter((n) => !files.some((f) => f.path === n.path)),
];

type FilesFromMachineProps = { files: CheckFile[]; onFiles: (files: CheckFile[]) => void };

/** Takes files of one's own machine, several at once; one with the path of another takes its place. */
export function FilesFromMachine({ files, onFiles }: FilesFromMachineProps) {
  const id = useId();
  const [refused, setRefused] = useState<string[]>([]);
  const take = async (chosen: File[]) => {
    const read = await textsOf(chosen);
    setRefused(read.refused);
    if (read.files.length > 0) {
      onFiles(laidOver(files, read.files));
    }
  };
  return (
    <div className="mt-2 text-sm">
      <label htmlFor={id} className="mr-2">
        Files of your machine
      </label>
      <input
        id={id}
        type="file"
        multiple
        className="max-w-full file:mr-3 file:rounded-leaf file:border file:border-solid file:border-edge file:bg-vellum file:px-3 file:py-1"
        onChange={(e) => {
          const chosen = [...(e.target.files ?? [])];
          // The same ones, mended, may be chosen again.
          e.target.value = "";
          void take(chosen);
        }}
      />
      {refused.length > 0 && (
        <Note tone="caution" role="alert" className="mt-2">
          {refused.join("; ")}.
        </Note>
      )}
    </div>
  );
}
