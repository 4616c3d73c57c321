package leveltally.core.paper;

/**
 * A sheet of stock, in micrometres.
 *
 * @param name what people call it
 */
public record PageSize(String name, int width, int height) {
    /** US letter, 8½ by 11 inches. */
    public static final PageSize LETTER = new PageSize("Letter", 215_900, 279_400);
    /** ISO 216 A4. */
    public static final PageSize A4 = new PageSize("A4", 210_000, 297_000);
}
