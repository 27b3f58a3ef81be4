import type { Schemas } from "../../api/client";
import { Code } from "../../ui/Code";
import { languageOf } from "../../ui/pieces";

/** The code that a prompt is about, file by file, each folded until it is wanted. */
export function StartingFiles({ files }: { files: Schemas["StartingFile"][] }) {
  return (
    <div>
      {files.map((file) => (
        <details key={file.path} className="border-t border-rule py-1 last:border-b" open={files.length === 1}>
          <summary className="font-mono text-sm">{file.path}</summary>
          <pre tabIndex={0} className="mt-1 max-h-96 overflow-auto bg-paper p-2 font-mono text-sm leading-snug">
            <code>
              <Code language={languageOf(file.path)} text={file.text} />
            </code>
          </pre>
        </details>
      ))}
    </div>
  );
}
