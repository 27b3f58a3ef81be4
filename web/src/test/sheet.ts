import type { Schemas } from "../api/client";

type Sheet = Schemas["SheetView"];
type Answer = Sheet["answers"][number];

const levels = (names: string[]) => names.map((name, level) => ({ level, name, anchor: `as ${name} looks` }));

export function answerOn(id: string, number: number, change: Partial<Answer> = {}): Answer {
  return {
    id,
    number,
    outcome: "COMPLETE",
    text: `Answer ${id}`,
    hasCode: false,
    reason: "",
    reasonRevision: 0,
    works: { revision: 0, why: "" },
    preference: { revision: 0 },
    grades: [],
    coverage: [],
    remarks: [],
    ...change,
  };
}

/** A sheet with three answers, a criterion of four levels and one of two. */
export function aSheet(change: Partial<Sheet> = {}): Sheet {
  return {
    id: "sheet",
    studyId: "s1",
    studyTitle: "A code model for the tide desk",
    prompt: {
      title: "Why does the lamp stay dark?",
      kind: "Debugging",
      language: "Java 17",
      request: "Find the fault.",
      startingFiles: [],
      constraints: [],
      keyPoints: [
        { stance: "MUST_CONTAIN", text: "Names the fuse", weight: 2 },
        { stance: "MUST_NOT", text: "Blames the bulb", weight: 1 },
      ],
    },
    criteria: [
      {
        id: "right",
        name: "Correctness",
        question: "Is it right?",
        levels: levels(["no", "hardly", "partly", "mostly"]),
        traits: ["invented an interface", "missed an edge case"],
        fromKeyPoints: true,
      },
      {
        id: "runs",
        name: "Compiles",
        question: "Does it compile?",
        levels: levels(["Fail", "Pass"]),
        traits: [],
        fromKeyPoints: false,
      },
    ],
    answers: ["a", "b", "c"].map((id, i) => answerOn(id, i + 1)),
    place: 1,
    ofSheets: 4,
    sent: false,
    setAside: false,
    roundClosed: false,
    tried: false,
    afterwards: false,
    reasons: "AT_THE_ENDS",
    ...change,
  };
}
