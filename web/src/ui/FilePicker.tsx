import { useId, useState } from "react";
import { classes } from "./classes";

type FilePickerProps = { label: string; accept: string; busy: boolean; onFile: (file: File) => void };

/** A place to drop a file, or to choose one. */
export function FilePicker({ label, accept, busy, onFile }: FilePickerProps) {
  const id = useId();
  const [over, setOver] = useState(false);
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) {
          onFile(file);
        }
      }}
      className={classes(
        "border-2 border-dashed p-8 text-center",
        over ? "border-heather bg-heather-wash" : "border-edge",
      )}
    >
      <label htmlFor={id} className="font-medium">
        {label}
      </label>
      <input
        id={id}
        type="file"
        accept={accept}
        disabled={busy}
        className="mx-auto mt-3 block max-w-full file:mr-3 file:rounded-leaf file:border file:border-solid file:border-edge file:bg-vellum file:px-3 file:py-1 file:font-medium"
        onChange={(e) => {
          const file = e.target.files?.[0];
          // The same file, mended, may be chosen again.
          e.target.value = "";
          if (file) {
            onFile(file);
          }
        }}
      />
    </div>
  );
}
