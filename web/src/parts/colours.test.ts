import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const [light, dark] = readFileSync("src/index.css", "utf8").split("prefers-color-scheme: dark") as [
  string,
  string,
];

function colour(theme: string, name: string): number[] {
  const hex = new RegExp(`--${name}: #([0-9a-f]{6})`).exec(theme)![1]!;
  return [0, 2, 4].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255);
}

/** The contrast of two colours (WCAG 2.2, relative luminance). */
function contrast(theme: string, one: string, other: string): number {
  const [bright, dim] = [one, other]
    .map((name) =>
      colour(theme, name)
        .map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4))
        .reduce((sum, part, i) => sum + part * [0.2126, 0.7152, 0.0722][i]!, 0),
    )
    .sort((a, b) => b - a) as [number, number];
  return (bright + 0.05) / (dim + 0.05);
}

describe.each([
  ["light", light],
  ["dark", dark],
])("the %s theme", (_, theme) => {
  it.each(["green", "brass"])("shows the bubble in its vial, level or not (%s)", (liquid) => {
    expect(contrast(theme, "bubble", liquid)).toBeGreaterThan(3);
  });

  it.each(["ink", "faint", "greentext", "brass", "rust", "harbour"])("can be read: %s", (text) => {
    for (const ground of ["paper", "sheet"]) expect(contrast(theme, text, ground)).toBeGreaterThan(4.5);
  });
});
