package leveltally.core.paper;

/** Knows the typefaces: how wide a text runs, and whether every character of it can be drawn. */
public interface Measure {

    /** Width in points of {@code text} set in {@code face} at {@code size} points. */
    double width(Face face, double size, String text);

    /** The first character the face lacks; empty when it has them all. */
    String missing(Face face, String text);
}
