package leveltally.core.paper;

/**
 * A rectangle on paper in whole micrometres, counted from the left and the top of the part it stands in: exact in hundredths
 * of a millimetre and in eighths of an inch (3,175).
 */
public record Area(int x, int y, int width, int height) {
    private static final double MICROMETRES_AN_INCH = 25_400;
    private static final double POINTS_AN_INCH = 72;

    public Area {
        if (width <= 0 || height <= 0) {
            throw new IllegalArgumentException("an area of " + width + " × " + height + " µm holds nothing");
        }
    }

    /** @param points 1/72 inch */
    static int micrometres(double points) {
        return (int) Math.round(points * MICROMETRES_AN_INCH / POINTS_AN_INCH);
    }

    static double points(int micrometres) {
        return micrometres * POINTS_AN_INCH / MICROMETRES_AN_INCH;
    }

    /** One that is given in points, as typefaces are. */
    static Area ofPoints(double x, double y, double width, double height) {
        return new Area(micrometres(x), micrometres(y), micrometres(width), micrometres(height));
    }

    public int right() {
        return x + width;
    }

    public int bottom() {
        return y + height;
    }

    /** Whether they have more than an edge in common. */
    public boolean overlaps(Area other) {
        return x < other.right() && other.x < right() && y < other.bottom() && other.y < bottom();
    }
}
