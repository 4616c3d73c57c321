package leveltally.core.paper;

import static leveltally.core.paper.Area.ofPoints;

import java.util.List;
import java.util.Map;
import leveltally.core.DateStyle;
import leveltally.core.batches.Stub;

/** The layouts that are there before anybody made one. */
public final class StandardLayouts {
    private static final List<Column> COLUMNS = List.of(
            new Column(Column.Of.REFERENCE, 30),
            new Column(Column.Of.DATE, 20),
            new Column(Column.Of.SETTLES, 18),
            new Column(Column.Of.DISCOUNT, 14),
            new Column(Column.Of.PAID, 18));

    /** 3½ inches. */
    private static final int CHECK = 88_900;

    /** US letter, check on top, two stubs: what each series prints on until it has a layout of its own. */
    public static final CheckLayout LETTER = of(PageSize.LETTER, Place.TOP, 2);

    /** The same with an advice that has no address: what was printed so far stands as it was. */
    public static final CheckLayout LETTER_WITHOUT_ADDRESS = withoutAddress(LETTER);

    private static final double MARGIN = 36;
    private static final double SLIP_WIDTH = 372;
    private static final double SLIP_CHECK = 186;
    private static final double SLIP_TEXT = 12;

    private StandardLayouts() {}

    /** What a company may begin with: everything a check needs, at its usual place. */
    public static CheckLayout of(PageSize page, Place place, int stubs) {
        CheckLayout bare = new CheckLayout(page, place, CHECK, stubs, DateStyle.WORDS, Map.of(), COLUMNS);
        double right = Area.points(page.width()) - MARGIN;
        double width = right - MARGIN;
        return new CheckLayout(
                page,
                place,
                CHECK,
                stubs,
                DateStyle.WORDS,
                Map.of(
                        Part.CHECK,
                        check(right, width),
                        Part.STUB,
                        stubs == 0 ? List.of() : stub(bare.printable(Part.STUB), right, width),
                        Part.ADVICE,
                        advice(bare.printable(Part.ADVICE), right, width)),
                COLUMNS);
    }

    private static List<Block> check(double right, double width) {
        double left = MARGIN;
        return List.of(
                block(Says.COMPANY, ofPoints(left, 34, width - 120, 14), Face.BOLD, 11, Box.Align.LEFT),
                block(Says.COMPANY_ADDRESS, ofPoints(left, 48.5, 270, 38), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.NUMBER, ofPoints(right - 110, 34, 110, 13), Face.MONO, 11, Box.Align.RIGHT),
                block(Says.DATE, ofPoints(right - 160, 48.5, 160, 12), Face.TEXT, 9, Box.Align.RIGHT),
                block(Says.PAYEE, ofPoints(left, 89, width - 156, 18), Face.BOLD, 11, Box.Align.LEFT),
                block(Says.AMOUNT, ofPoints(right - 146, 83, 146, 23), Face.BOLD, 12, Box.Align.RIGHT),
                block(Says.WORDS, ofPoints(left, 108, width, 24), Face.TEXT, 10, Box.Align.LEFT),
                block(Says.PAYEE_ADDRESS, ofPoints(left, 133, 270, 66), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.SECOND_SIGNATURE, ofPoints(right - 190, 133, 190, 14), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.BANK, ofPoints(right - 190, 149, 190, 14), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.SIGNATURE, ofPoints(right - 190, 168, 190, 24), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.VALIDITY, ofPoints(right - 220, 195, 220, 10), Face.TEXT, 7, Box.Align.RIGHT));
    }

    private static List<Block> stub(Area free, double right, double width) {
        double top = Math.max(6, Area.points(free.y()));
        double lines = top + 16;
        return List.of(
                block(Says.PAYEE, ofPoints(MARGIN, top, 300, 13), Face.BOLD, 9, Box.Align.LEFT),
                block(Says.DATE, ofPoints(right - 160, top, 160, 13), Face.TEXT, 9, Box.Align.RIGHT),
                block(
                        Says.LINES,
                        ofPoints(MARGIN, lines, width, Area.points(free.bottom()) - lines),
                        Face.TEXT,
                        9,
                        Box.Align.LEFT));
    }

    /** The payee stands where it does on the check, for the same window of the envelope. */
    private static List<Block> advice(Area free, double right, double width) {
        Area title = ofPoints(right - 200, 34, 200, 18);
        return List.of(
                block(Says.COMPANY, ofPoints(MARGIN, 34, width - 210, 14), Face.BOLD, 11, Box.Align.LEFT),
                block(Says.COMPANY_ADDRESS, ofPoints(MARGIN, 48.5, 270, 38), Face.TEXT, 9, Box.Align.LEFT),
                new Block(Says.TEXT, title, Face.BOLD, 13, Box.Align.RIGHT, "Remittance advice"),
                block(Says.DATE, ofPoints(right - 160, 56, 160, 13), Face.TEXT, 9, Box.Align.RIGHT),
                block(Says.NUMBER, ofPoints(right - 160, 70, 160, 13), Face.MONO, 9, Box.Align.RIGHT),
                block(Says.PAYEE, ofPoints(MARGIN, 119, 400, 13), Face.BOLD, 9, Box.Align.LEFT),
                block(Says.PAYEE_ADDRESS, ofPoints(MARGIN, 133, 270, 66), Face.TEXT, 9, Box.Align.LEFT),
                block(
                        Says.LINES,
                        ofPoints(MARGIN, 212, width, Area.points(free.bottom()) - 212),
                        Face.TEXT,
                        9,
                        Box.Align.LEFT));
    }

    private static CheckLayout withoutAddress(CheckLayout of) {
        Area free = of.printable(Part.ADVICE);
        double width = Area.points(of.page().width()) - 2 * MARGIN;
        Area title = ofPoints(MARGIN, 47, 300, 18);
        List<Block> advice = List.of(
                new Block(Says.TEXT, title, Face.BOLD, 13, Box.Align.LEFT, "Remittance advice"),
                block(Says.PAYEE, ofPoints(MARGIN, 69, 400, 13), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.DATE, ofPoints(MARGIN, 83, 160, 13), Face.TEXT, 9, Box.Align.LEFT),
                block(Says.NUMBER, ofPoints(MARGIN + 164, 83, 160, 13), Face.MONO, 9, Box.Align.LEFT),
                block(
                        Says.LINES,
                        ofPoints(MARGIN, 97, width, Area.points(free.bottom()) - 97),
                        Face.TEXT,
                        9,
                        Box.Align.LEFT));
        return new CheckLayout(
                of.page(),
                of.place(),
                of.checkHeight(),
                of.stubs(),
                of.dates(),
                Map.of(Part.CHECK, of.on(Part.CHECK), Part.STUB, of.on(Part.STUB), Part.ADVICE, advice),
                of.columns());
    }

    private static Block block(Says says, Area area, Face face, double size, Box.Align align) {
        return new Block(says, area, face, size, align, "");
    }

    /** The slip beside a list: check face and one stub as long as it is, in text of 12 px and more when drawn at one px a point. */
    public static CheckLayout slip(Stub stub) {
        double lines = Lines.heightFor(stub, SLIP_TEXT);
        double width = SLIP_WIDTH - 28;
        return new CheckLayout(
                new PageSize("slip", Area.micrometres(SLIP_WIDTH), Area.micrometres(SLIP_CHECK + lines + 10)),
                Place.TOP,
                Area.micrometres(SLIP_CHECK),
                1,
                DateStyle.NARROW,
                Map.of(
                        Part.CHECK,
                        List.of(
                                block(Says.COMPANY, ofPoints(14, 10, 226, 18), Face.BOLD, 14, Box.Align.LEFT),
                                block(Says.NUMBER, ofPoints(248, 10, 110, 18), Face.MONO, 14, Box.Align.RIGHT),
                                block(Says.COMPANY_ADDRESS, ofPoints(14, 31, 200, 50), Face.TEXT, 12, Box.Align.LEFT),
                                block(Says.DATE, ofPoints(218, 31, 140, 15), Face.TEXT, 12, Box.Align.RIGHT),
                                block(Says.PAYEE, ofPoints(14, 84, 206, 20), Face.BOLD, 14, Box.Align.LEFT),
                                block(Says.AMOUNT, ofPoints(228, 78, 130, 26), Face.BOLD, 14, Box.Align.RIGHT),
                                block(Says.WORDS, ofPoints(14, 108, width, 30), Face.TEXT, 13, Box.Align.LEFT),
                                block(Says.BANK, ofPoints(14, 143, 240, 16), Face.TEXT, 12, Box.Align.LEFT)),
                        Part.STUB,
                        List.of(block(
                                Says.LINES, ofPoints(14, 4, width, lines), Face.TEXT, SLIP_TEXT, Box.Align.LEFT))),
                List.of(
                        new Column(Column.Of.REFERENCE, 29),
                        new Column(Column.Of.DATE, 15),
                        new Column(Column.Of.SETTLES, 19),
                        new Column(Column.Of.DISCOUNT, 18),
                        new Column(Column.Of.PAID, 19)));
    }
}
