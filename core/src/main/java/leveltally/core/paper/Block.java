package leveltally.core.paper;

/**
 * One thing at one place of a part.
 *
 * @param size of its letters in points; a text that does not fit shrinks, though never below {@link #SMALLEST}
 * @param text what a free text says; empty for everything else
 */
public record Block(Says says, Area area, Face face, double size, Box.Align align, String text) {
    /** Points; smaller is not readable. */
    public static final double SMALLEST = 7;

    public static final double LARGEST = 24;
    private static final double LEAD = 1.38;

    public Block {
        if (size < SMALLEST || size > LARGEST) {
            throw new IllegalArgumentException("letters of " + size + " points are too small or too large");
        }
        if (text.isBlank() == (says == Says.TEXT)) {
            throw new IllegalArgumentException("a free text, and nothing else, says what it says");
        }
    }

    /** From one line to the next, in points. */
    double lead() {
        return lead(size);
    }

    static double lead(double size) {
        return size * LEAD;
    }
}
