import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

// `as` hides what a type says; it is allowed as `as const` and where the wire's types are made.
const noAssertion = {
  selector: "TSAsExpression:not([typeAnnotation.typeName.name='const'])",
  message: "Narrow the type; `as` only as `as const` or in src/api.",
};

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
      // Taking members off an object by naming them is the plain way to leave them out.
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
    },
  },
  {
    files: ["src/features/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ regex: "^\\.\\./[a-z]+/[A-Za-z]+$", message: "Import another feature's index." }] },
      ],
    },
  },
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
);
