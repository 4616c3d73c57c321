import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

// Each folder knows only those before it: what is shared first, then the capabilities in the order in which one shows
// parts of another. A batch shows who approves it and what the check of its payments looks like, so these come before it.
const ORDER = [
  "api",
  "parts",
  "frame",
  "audit",
  "proof",
  "people",
  "workline",
  "setup",
  "mail",
  "company",
  "ledger",
  "vendors",
  "invoices",
  "imports",
  "selection",
  "marks",
  "approval",
  "batches",
  "voiding",
  "checks",
  "outside",
  "direct",
  "contacts",
  "printers",
  "paper",
  "bankfiles",
  "electronic",
  "wires",
  "printing",
  "reports",
  "posting",
  "clearing",
  "exchange",
];

const oneWay = ORDER.map((folder, place) => ({
  files: [`src/${folder}/**/*.{ts,tsx}`],
  ignores: ["**/*.test.*"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: ORDER.slice(place + 1)
          .map((later) => ({
            group: [`../${later}/*`],
            message: `${folder} knows only the folders before it in the order of eslint.config.js.`,
          }))
          .concat({
            group: ["../App", "../views", "../tests/*"],
            message: "Nothing but the entrance knows the whole.",
          }),
      },
    ],
  },
}));

export default ts.config(
  { ignores: ["dist", "node_modules", "src/api/schema.d.ts"] },
  js.configs.recommended,
  { files: ["*.mjs"], languageOptions: { globals: { console: "readonly", process: "readonly" } } },
  ...ts.configs.recommended,
  { plugins: { "react-hooks": hooks }, rules: hooks.configs.recommended.rules },
  {
    files: ["src/**/*.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "Literal[value=/text-\\[\\d/], TemplateElement[value.raw=/text-\\[\\d/]",
          message:
            "Sizes of type stand in index.css: text-mark, text-note, text-body, text-base, text-sentence.",
        },
      ],
    },
  },
  ...oneWay,
);
