import { type ReactNode, useRef, useState } from "react";
import { Button } from "./Button";
import { pngOf, svgText } from "./pictured";

type PictureProps = {
  /** What it shows, for readers aloud; the same numbers stand in a table beside it. */
  label: string;
  width: number;
  height: number;
  /** The name that it is saved under, without the ending. */
  name: string;
  children: ReactNode;
};

/** A drawing that can be copied, to stand in somebody’s own text. */
export function Picture({ label, width, height, name, children }: PictureProps) {
  const svg = useRef<SVGSVGElement>(null);
  return (
    <figure className="m-0">
      <div className="overflow-x-auto" role="region" aria-label={label} tabIndex={0}>
        <svg
          ref={svg}
          viewBox={`0 0 ${width} ${height}`}
          width={width}
          height={height}
          role="img"
          aria-label={label}
          className="block"
        >
          {children}
        </svg>
      </div>
      <Copies name={name} of={() => svg.current} />
    </figure>
  );
}

/** Copies the drawing, or saves it; where a browser lets no picture be copied, it says so. */
function Copies({ name, of }: { name: string; of: () => SVGSVGElement | null }) {
  const [said, setSaid] = useState("");
  const copy = async (svg: SVGSVGElement) => {
    try {
      await navigator.clipboard.write([new ClipboardItem({ "image/png": pngOf(svg) })]);
      setSaid("Copied.");
    } catch {
      setSaid("This browser lets no picture be copied. Save it instead.");
    }
  };
  return (
    <figcaption className="mt-1 flex flex-wrap items-center gap-2 text-sm print:hidden">
      <Button
        onClick={() => {
          const svg = of();
          if (svg) void copy(svg);
        }}
      >
        Copy the picture
      </Button>
      <Button
        onClick={() => {
          const svg = of();
          if (svg) save(svg, name);
        }}
      >
        Save it (SVG)
      </Button>
      <span role="status">{said}</span>
    </figcaption>
  );
}

function save(svg: SVGSVGElement, name: string) {
  const url = URL.createObjectURL(new Blob([svgText(svg)], { type: "image/svg+xml" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${name}.svg`;
  link.click();
  URL.revokeObjectURL(url);
}
