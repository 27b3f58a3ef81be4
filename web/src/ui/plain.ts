/** Longer texts are shown as they are: laying them out would hold up the page. In characters. */
const LONGEST = 256_000;
const MOST_LINES = 8_000;

/** How deep quotes and lists may stand in each other on one line. */
const DEEPEST = 30;

/**
 * What pairing marks may cost: the marks of emphasis, and the brackets, of each paragraph, squared, in all. Whoever lays out
 * Markdown looks for the other half of each among all before it, so that few kilobytes of them keep a page busy for minutes.
 */
const MOST_PAIRING = 4_000_000;

export type Plainness = "very-long" | "tangled";

/** Why a text is shown as it is and not laid out as Markdown; undefined if it is laid out. Reads it once. */
export function plainness(text: string): Plainness | undefined {
  if (text.length > LONGEST) {
    return "very-long";
  }
  let fence = "";
  let emphasis = 0;
  let brackets = 0;
  let pairing = 0;
  const lines = text.split("\n");
  if (lines.length > MOST_LINES) {
    return "very-long";
  }
  const paragraphEnds = () => {
    pairing += emphasis * emphasis + brackets * brackets;
    emphasis = 0;
    brackets = 0;
  };
  for (const line of lines) {
    const opening = fenceOf(line);
    if (fence !== "") {
      fence = opening.startsWith(fence) ? "" : fence;
      continue;
    }
    if (opening !== "") {
      fence = opening;
    } else if (line.trim() === "") {
      paragraphEnds();
    } else if (depthOf(line) > DEEPEST) {
      return "tangled";
    } else {
      const marks = marksOf(line);
      emphasis += marks.emphasis;
      brackets += marks.brackets;
    }
  }
  paragraphEnds();
  return pairing > MOST_PAIRING ? "tangled" : undefined;
}

/** The run of backticks or tildes that a line opens or closes a block of code with; empty if it does neither. */
function fenceOf(line: string): string {
  let at = 0;
  while (at < 4 && line[at] === " ") {
    at++;
  }
  const sign = line[at];
  let end = at;
  while ((sign === "`" || sign === "~") && line[end] === sign) {
    end++;
  }
  return at < 4 && end - at >= 3 ? line.slice(at, end) : "";
}

/** How many quotes and list items begin at the start of a line, one in the other; no more are counted than matter. */
function depthOf(line: string): number {
  let depth = 0;
  let at = 0;
  while (at < line.length && depth <= DEEPEST) {
    const sign = line[at] ?? "";
    if (sign === " " || sign === "\t") {
      at++;
    } else if (sign === ">") {
      depth++;
      at++;
    } else {
      const item = itemEnd(line, at);
      if (item === undefined) {
        return depth;
      }
      depth++;
      at = item;
    }
  }
  return depth;
}

const isBlank = (sign: string | undefined) => sign === undefined || sign === " " || sign === "\t";

/** Where what a list item's mark begins with goes on; undefined if there is no such mark. */
function itemEnd(line: string, from: number): number | undefined {
  let at = from;
  while (at - from < 9 && (line[at] ?? "") >= "0" && (line[at] ?? "") <= "9") {
    at++;
  }
  const marks = at > from ? ".)" : "-*+";
  return marks.includes(line[at] ?? " ") && isBlank(line[at + 1]) ? at + 1 : undefined;
}

function marksOf(line: string): { emphasis: number; brackets: number } {
  let emphasis = 0;
  let brackets = 0;
  let before = "";
  for (const sign of line) {
    if (sign === "[" || sign === "]") {
      brackets++;
    } else if ((sign === "*" || sign === "_" || sign === "~") && sign !== before) {
      emphasis++;
    }
    before = sign;
  }
  return { emphasis, brackets };
}
