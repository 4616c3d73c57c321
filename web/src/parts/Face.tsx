import type { Schemas } from "../api/client";

const FACES = {
  TEXT: { family: "var(--font-sans)", weight: 400 },
  BOLD: { family: "var(--font-sans)", weight: 700 },
  MONO: { family: "var(--font-mono)", weight: 400 },
};
const ANCHORS = { LEFT: "start", RIGHT: "end", CENTER: "middle" } as const;

/** A laid-out page: the boxes the server computed, drawn as they are. */
export function Face({ page, label }: { page: Schemas["PageView"]; label: string }) {
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${page.width} ${page.height}`}
      className="border-hair bg-sheet block w-full border"
    >
      {page.rules.map((rule, i) => (
        <line
          key={i}
          x1={rule.x1}
          y1={rule.y1}
          x2={rule.x2}
          y2={rule.y2}
          stroke="var(--faint)"
          strokeWidth={rule.width}
          strokeDasharray={rule.dashed ? "3 2" : undefined}
        />
      ))}
      {page.frames.map((frame, i) => (
        <rect
          key={i}
          x={frame.x}
          y={frame.y}
          width={frame.width}
          height={frame.height}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={0.8}
        />
      ))}
      {page.pictures.map((picture, i) => (
        <image
          key={i}
          href={`/api/pictures/${picture.picture}`}
          x={picture.x}
          y={picture.y}
          width={picture.width}
          height={picture.height}
        />
      ))}
      {page.texts.map((text, i) => (
        <text
          key={i}
          x={text.x}
          y={text.y}
          fontFamily={FACES[text.face ?? "TEXT"].family}
          fontWeight={FACES[text.face ?? "TEXT"].weight}
          fontSize={text.size}
          textAnchor={ANCHORS[text.align ?? "LEFT"]}
          fill="var(--ink)"
          style={{ fontVariantNumeric: "normal" }}
        >
          {text.text}
        </text>
      ))}
    </svg>
  );
}
