package leveltally.core.printing;

/**
 * The measures of a form, in points: the same fields stand on the paper and, at a readable size, in the slip.
 *
 * @param name what a document keeps of it: a form that changes gets another
 * @param checkHeight from the top to the perforation; {@code stubs} how many follow, each {@code stubHeight} high
 * @param paper true for what a printer takes: letter size, with a place for the MICR line
 */
public record CheckForm(
        String name,
        double width,
        double margin,
        double checkHeight,
        int stubs,
        double stubHeight,
        double text,
        double lead,
        boolean paper) {

    /** US letter, check on top, two stubs. */
    public static final CheckForm LETTER = new CheckForm("letter-1", 612, 36, 252, 2, 270, 9, 12.5, true);

    /** The slip beside a list: check face and first stub, in text of 12 px and more when drawn at one px a point. */
    public static final CheckForm SLIP = new CheckForm("slip", 372, 14, 186, 1, 0, 12, 17, false);

    /** The form a document was printed on. */
    public static CheckForm kept(String name) {
        if (!name.equals(LETTER.name)) {
            throw new IllegalArgumentException("form: nothing is known of “" + name + "”");
        }
        return LETTER;
    }

    /** How many invoice lines a stub holds; the rest goes to a remittance advice. */
    public int linesPerStub() {
        return paper ? (int) ((stubHeight - 78) / lead) : Integer.MAX_VALUE;
    }
}
