import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

// `as` hides what a type says; it is allowed as `as const` and where the wire's types are made.
const noAssertion = {
  selector: "TSAsExpression:not([typeAnnotation.typeName.name='const'])",
  message: "Narrow the type; `as` only as `as const` or in src/api.",
};

// The order of the job: a feature imports those before it, and none after it.
const IN_ORDER = [
  "account",
  "study",
  "prompt",
  "source",
  "candidate",
  "rubric",
  "brief",
  "run",
  "masking",
  "answer",
  "desk",
  "reconciliation",
  "calibration",
  "grading",
  "agreement",
  "recommendation",
  "archive",
  "table",
];

// What answers are read with is large: a feature of its own in all but place, fetched only where they are read.
const OWN_INDEX = { regex: "^\\.\\./[a-z]+/(?!reading$)[A-Za-z]+$", message: "Import another feature's index." };

const inOrder = IN_ORDER.map((feature, i) => ({
  files: [`src/features/${feature}/**/*.{ts,tsx}`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          OWN_INDEX,
          {
            regex: `^(\\.\\./)+(${IN_ORDER.slice(i + 1).join("|") || "nothing"})(/|$)`,
            message: "It comes later in the job.",
          },
        ],
      },
    ],
  },
}));

export default ts.config(
  { ignores: ["src/api/schema.d.ts", "src/api/limits.ts", "target"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat["recommended-latest"],
  {
    files: ["src/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-syntax": [
        "error",
        noAssertion,
        { selector: "ExportDefaultDeclaration", message: "Named exports only." },
      ],
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/no-explicit-any": "error",
      "no-undef": "off",
      // A function that does not fit on a screen is read in pieces; then let it be pieces.
      "max-lines-per-function": ["error", { max: 60, skipBlankLines: true, skipComments: true }],
      "max-lines": ["error", { max: 350 }],
      // Taking members off an object by naming them is the plain way to leave them out.
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
    },
  },
  ...inOrder,
  {
    files: ["src/ui/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: ["**/features/**"], message: "ui knows no feature." }] },
      ],
    },
  },
  { files: ["src/api/**/*.ts", "src/**/*.test.ts"], rules: { "no-restricted-syntax": "off" } },
  { files: ["src/test/**/*.{ts,tsx}"], rules: { "max-lines-per-function": "off", "max-lines": "off" } },
);
