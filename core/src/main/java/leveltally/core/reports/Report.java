package leveltally.core.reports;

import java.util.List;
import org.jspecify.annotations.Nullable;

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

    /**
     * @param leads the address of the page on which what it counts is looked at; null for none
     */
    public record Line(
            Kind kind, List<String> cells, @Nullable String leads) {
        public Line {
            cells = List.copyOf(cells);
        }

        /** One that leads nowhere. */
        public Line(Kind kind, List<String> cells) {
            this(kind, cells, null);
        }

        /** The same, leading to a page. */
        public Line leadingTo(String address) {
            return new Line(kind, cells, address);
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
