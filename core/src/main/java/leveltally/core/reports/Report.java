package leveltally.core.reports;

import java.util.List;

/**
 * A list with groups and totals, its words and figures ready to be read.
 *
 * @param facts what it is about, a line each
 */
public record Report(String title, List<String> facts, List<Head> heads, List<Line> lines) {
    public Report {
        facts = List.copyOf(facts);
        heads = List.copyOf(heads);
        lines = List.copyOf(lines);
        for (Line line : lines) {
            if (line.kind() != Kind.GROUP && line.cells().size() != heads.size()) {
                throw new IllegalArgumentException(
                        title + ": a row of " + line.cells().size() + " cells under " + heads.size() + " heads");
            }
        }
    }

    /**
     * A column.
     *
     * @param share of the width, against those of the others
     * @param right for figures
     */
    public record Head(String title, int share, boolean right) {}

    /** What a line is. */
    public enum Kind {
        /** Names what follows; its cells are one text, or that and a second at the right. */
        GROUP,
        ROW,
        /** Sums up what stands above it. */
        TOTAL
    }

    public record Line(Kind kind, List<String> cells) {
        public Line {
            cells = List.copyOf(cells);
        }

        public static Line group(String... texts) {
            return new Line(Kind.GROUP, List.of(texts));
        }

        public static Line row(String... cells) {
            return new Line(Kind.ROW, List.of(cells));
        }

        public static Line total(String... cells) {
            return new Line(Kind.TOTAL, List.of(cells));
        }
    }
}
