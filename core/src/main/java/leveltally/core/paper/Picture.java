package leveltally.core.paper;

/**
 * A picture that is drawn on paper; what it shows is kept elsewhere under its id.
 *
 * @param width of what it shows, in units of its own; with {@code height} it gives its proportion
 */
public record Picture(long id, double width, double height) {
    public Picture {
        if (!(width > 0 && height > 0)) {
            throw new IllegalArgumentException("a picture of " + width + " by " + height);
        }
    }

    /** As large as it can be in a place, at its proportion. */
    Box.Drawn in(double x, double y, double room, double high, Box.Align align) {
        double scale = Math.min(room / width, high / height);
        double wide = width * scale;
        double left = x
                + switch (align) {
                    case LEFT -> 0;
                    case RIGHT -> room - wide;
                    case CENTER -> (room - wide) / 2;
                };
        return new Box.Drawn(left, y + high - height * scale, wide, height * scale, id);
    }
}
