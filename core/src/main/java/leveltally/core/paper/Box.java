package leveltally.core.paper;

import java.util.List;

/** Something drawn at a place; points (1/72 inch) from the left and the top of the page. */
public sealed interface Box {

    /** The same further right and down, in points. */
    Box moved(double right, double down);

    /** Where a text's given x stands in it. */
    enum Align {
        LEFT,
        RIGHT,
        CENTER
    }

    /**
     * One line of text.
     *
     * @param x left or right edge or middle, as {@code align} says; {@code y} the baseline
     */
    record Text(double x, double y, Face face, double size, Align align, String text) implements Box {
        @Override
        public Text moved(double right, double down) {
            return new Text(x + right, y + down, face, size, align, text);
        }
    }

    /** A straight line. */
    record Rule(double x1, double y1, double x2, double y2, double width, boolean dashed) implements Box {
        @Override
        public Rule moved(double right, double down) {
            return new Rule(x1 + right, y1 + down, x2 + right, y2 + down, width, dashed);
        }
    }

    /** An outlined rectangle. */
    record Frame(double x, double y, double width, double height) implements Box {
        @Override
        public Frame moved(double right, double down) {
            return new Frame(x + right, y + down, width, height);
        }
    }

    /** Filled rectangles without gaps or anti-aliased seams: the bars of a MICR line. */
    record Bars(List<Bar> bars) implements Box {
        public Bars {
            bars = List.copyOf(bars);
        }

        @Override
        public Bars moved(double right, double down) {
            return new Bars(bars.stream()
                    .map(bar -> new Bar(bar.x() + right, bar.y() + down, bar.width(), bar.height()))
                    .toList());
        }
    }

    /** A picture, by its id; x and y are its left top corner. */
    record Drawn(double x, double y, double width, double height, long picture) implements Box {
        @Override
        public Drawn moved(double right, double down) {
            return new Drawn(x + right, y + down, width, height, picture);
        }
    }

    /** One bar; x and y are its left top corner. */
    record Bar(double x, double y, double width, double height) {}
}
