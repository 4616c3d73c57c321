package leveltally.core.paper;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import leveltally.core.batches.Stub;
import org.jspecify.annotations.Nullable;

/**
 * Lays out one check with its stubs, or its advice, as positioned boxes, once for every use of it.
 *
 * <p>Only what goes to the printer carries the MICR line, and the number of blank stock; every other view says NOT A CHECK.
 */
public final class CheckDrawing {
    private static final Pattern CONTROL = Pattern.compile("\\p{Cntrl}");
    private static final String NO_CHECK = "NOT A CHECK";

    private final CheckText text;
    private final CheckLayout layout;
    private final Measure measure;
    private final List<Box> boxes = new ArrayList<>();
    private boolean loose;
    private @Nullable Picture signature;

    private CheckDrawing(CheckText text, CheckLayout layout, Measure measure) {
        this.text = text;
        this.layout = layout;
        this.measure = measure;
    }

    /**
     * The check of one payment with its stubs as it goes to the printer: one sheet of stock, whatever the number of lines.
     *
     * @param signature null where every check is signed by hand
     * @throws Refusal when a text cannot be drawn in full
     */
    public static Page forThePrinter(
            CheckText text, CheckLayout layout, Paper paper, @Nullable Signature signature, Measure measure) {
        if (text.number() == null) {
            throw new IllegalArgumentException("check to " + text.payee() + ": nothing is printed without a number");
        }
        CheckDrawing drawing = new CheckDrawing(text, layout, measure);
        drawing.signature = signature != null && signature.signs(text.amount()) ? signature.picture() : null;
        return drawing.sheet(paper);
    }

    /**
     * The same to look at: a preview, a copy, what lies in the tray. It says that it is no check.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static Page toLookAt(CheckText text, CheckLayout layout, Measure measure) {
        return new CheckDrawing(text, layout, measure).sheet(null);
    }

    /**
     * The same where nothing is refused: on the slip beside a list, and of a layout that is being made. What does not fit its
     * place runs over it.
     */
    public static Page loosely(CheckText text, CheckLayout layout, Measure measure) {
        CheckDrawing drawing = new CheckDrawing(text, layout, measure);
        drawing.loose = true;
        return drawing.sheet(null);
    }

    /** An advice as if the stub listed nothing, where nothing is refused. */
    public static Page looseAdvice(CheckText text, CheckLayout layout, Measure measure) {
        CheckDrawing drawing = new CheckDrawing(text, layout, measure);
        drawing.loose = true;
        return drawing.advicePage(
                0,
                Math.min(
                        Lines.room(layout, Part.ADVICE, text.stub()),
                        text.stub().rows().size()));
    }

    /**
     * The remittance advice of one payment, on plain paper: the lines beyond its stub; empty when the stub lists them all.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static List<Page> advice(CheckText text, CheckLayout layout, Measure measure) {
        int shown = layout.stubs() == 0 ? 0 : Lines.room(layout, Part.STUB, text.stub());
        return advice(text, layout, shown, measure);
    }

    /**
     * The whole remittance advice of one payment, with the lines of its stub, too: what a payee gets by mail.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static List<Page> wholeAdvice(CheckText text, CheckLayout layout, Measure measure) {
        boolean none = Lines.room(layout, Part.ADVICE, text.stub()) == 0;
        return advice(text, none ? StandardLayouts.LETTER : layout, 0, measure);
    }

    private static List<Page> advice(CheckText text, CheckLayout layout, int shown, Measure measure) {
        List<Page> pages = new ArrayList<>();
        int rows = text.stub().rows().size();
        int each = Lines.room(layout, Part.ADVICE, text.stub());
        if (shown < rows && each == 0) {
            throw Refusal.invalid(
                    "no-advice",
                    "The layout has no place for lines on its advice, and its stub is too small for them all.");
        }
        for (int from = Math.min(shown, rows); from < rows; from += each) {
            pages.add(new CheckDrawing(text, layout, measure).advicePage(from, Math.min(each, rows - from)));
        }
        return pages;
    }

    /**
     * One block alone, to see whether what it says fits; the page is of no use for anything else.
     *
     * @throws Refusal when it does not
     */
    static void tryOut(CheckText text, CheckLayout layout, Part part, Block block, Measure measure) {
        int rows = Math.min(
                Lines.room(layout, part, text.stub()), text.stub().rows().size());
        new CheckDrawing(text, layout, measure).block(part, block, 0, 0, rows, true);
    }

    private Page sheet(@Nullable Paper paper) {
        if (!loose
                && text.needsSecond()
                && layout.on(Part.CHECK).stream().noneMatch(block -> block.says() == Says.SECOND_SIGNATURE)) {
            throw Refusal.invalid(
                    "no-second-signature",
                    "Two people sign checks above " + text.payer().secondAbove()
                            + ", and the layout has no line for the second.");
        }
        double top = Area.points(layout.checkTop());
        double width = Area.points(layout.page().width());
        double bottom = top + Area.points(layout.checkHeight());
        boolean numbered = !(paper instanceof Paper.Numbered);
        for (Block block : layout.on(Part.CHECK)) {
            block(Part.CHECK, block, top, 0, 0, numbered);
        }
        if (paper instanceof Paper.Blank blank && text.number() != null) {
            boxes.add(blank.line(text.number()).drawn(width, bottom));
        } else if (paper == null) {
            put(width / 2, bottom - 14, Face.MONO, 12, Box.Align.CENTER, NO_CHECK, 300);
        }
        for (int at : layout.stubTops()) {
            double edge = Area.points(at);
            boxes.add(rule(0, at < layout.checkTop() ? edge + Area.points(layout.stubHeight()) : edge, width, true));
            int rows = Math.min(
                    Lines.room(layout, Part.STUB, text.stub()),
                    text.stub().rows().size());
            for (Block block : layout.on(Part.STUB)) {
                block(Part.STUB, block, edge, 0, rows, numbered);
            }
        }
        return new Page(width, Area.points(layout.page().height()), boxes);
    }

    private Page advicePage(int from, int rows) {
        for (Block block : layout.on(Part.ADVICE)) {
            block(Part.ADVICE, block, 0, from, rows, true);
        }
        return new Page(
                Area.points(layout.page().width()), Area.points(layout.page().height()), boxes);
    }

    /**
     * @param top of its part on the sheet
     * @param from the first of the rows to list, and how many
     * @param numbered whether the number is printed, too
     */
    private void block(Part part, Block block, double top, int from, int rows, boolean numbered) {
        CheckText.Payer payer = text.payer();
        switch (block.says()) {
            case COMPANY -> lines(block, top, List.of(payer.company()));
            case COMPANY_ADDRESS -> lines(block, top, payer.address());
            case BANK -> lines(block, top, List.of(payer.bank()));
            case NUMBER -> {
                // on numbered stock it stands on the check already, and nowhere else
                String called = text.numberOrReference();
                if ((numbered || part != Part.CHECK) && !called.isEmpty()) {
                    lines(block, top, List.of(called));
                }
            }
            case DATE -> lines(block, top, List.of(text.dates(layout).alone(text.checkDate())));
            case PAYEE -> payee(part, block, top);
            case PAYEE_ADDRESS -> lines(block, top, text.address());
            case AMOUNT -> amount(part, block, top);
            case WORDS -> words(block, top);
            case MEMO -> memo(block, top);
            case LOGO -> picture(block, top, payer.logo());
            case SIGNATURE -> {
                picture(block, top, signature);
                // several lines are for several people: the picture stands on the first
                signature = null;
                toSignOn(block, top);
            }
            case SECOND_SIGNATURE -> {
                if (text.needsSecond()) {
                    toSignOn(block, top);
                }
            }
            case VALIDITY -> lines(block, top, List.of(payer.validity()));
            case TEXT -> lines(block, top, List.of(block.text().split("\n")));
            case LINES -> new Lines(layout, block).draw(text, top, from, rows, this::put, boxes::add);
        }
    }

    private void picture(Block block, double top, @Nullable Picture picture) {
        if (picture != null) {
            Area area = block.area();
            boxes.add(picture.in(
                    Area.points(area.x()),
                    top + Area.points(area.y()),
                    Area.points(area.width()),
                    Area.points(area.height()),
                    block.align()));
        }
    }

    private void toSignOn(Block block, double top) {
        double y = top + Area.points(block.area().bottom());
        double left = Area.points(block.area().x());
        boxes.add(new Box.Rule(left, y, left + Area.points(block.area().width()), y, 0.6, false));
    }

    private void payee(Part part, Block block, double top) {
        lines(block, top, List.of(text.payee()));
        if (part == Part.CHECK) {
            double y = top + Area.points(block.area().bottom());
            double left = Area.points(block.area().x());
            boxes.add(rule(left, y, left + Area.points(block.area().width()), false));
        }
    }

    private void amount(Part part, Block block, double top) {
        if (part != Part.CHECK) {
            lines(block, top, List.of(text.amount().toString()));
            return;
        }
        Area area = block.area();
        boxes.add(new Box.Frame(
                Area.points(area.x()),
                top + Area.points(area.y()),
                Area.points(area.width()),
                Area.points(area.height())));
        double y = top + Area.points(area.y()) + (Area.points(area.height()) + block.size() * 0.7) / 2;
        double inside = Area.points(area.width()) - 12;
        put(
                Area.points(area.right()) - 6,
                y,
                block.face(),
                block.size(),
                Box.Align.RIGHT,
                "**" + text.amount(),
                inside);
    }

    /** The words and a rule line to the end; they shrink to a readable minimum, then take a second line. */
    private void words(Block block, double top) {
        String words = AmountInWords.of(text.amount(), text.payer().currencyWord());
        double left = Area.points(block.area().x());
        double room = Area.points(block.area().width());
        double middle =
                top + Area.points(block.area().y()) + Area.points(block.area().height()) / 2;
        double least = Math.max(Block.SMALLEST, block.size() - 2);
        for (double size = block.size(); size >= least; size -= 0.5) {
            if (measure.width(block.face(), size, words) <= room) {
                withRule(block.face(), size, left, middle + size * 0.35, room, words);
                return;
            }
        }
        if (!loose && Area.points(block.area().height()) < 2 * least + 2) {
            throw Refusal.invalid(
                    "words-too-long",
                    "The amount in words needs two lines, and its place is lower than that: “" + words + "”.");
        }
        int cut = lastSpaceThatFits(words, block.face(), room, least);
        put(left, middle - 2, block.face(), least, Box.Align.LEFT, words.substring(0, cut), room);
        withRule(block.face(), least, left, middle + least, room, words.substring(cut + 1));
    }

    private void withRule(Face face, double size, double left, double y, double room, String words) {
        put(left, y, face, size, Box.Align.LEFT, words, room);
        double end = measure.width(face, size, words) + 6;
        if (end + 2 < room) {
            boxes.add(rule(left + end, y - size / 3, left + room, false));
        }
    }

    private int lastSpaceThatFits(String words, Face face, double room, double size) {
        int cut = words.lastIndexOf(' ');
        while (cut > 0 && measure.width(face, size, words.substring(0, cut)) > room) {
            cut = words.lastIndexOf(' ', cut - 1);
        }
        if (cut <= 0 && loose) {
            return words.indexOf(' ');
        }
        if (cut <= 0) {
            throw Refusal.invalid("words-too-long", "The amount in words does not fit the check: “" + words + "”.");
        }
        return cut;
    }

    /** As many of the vendor's references as there is room for, and how many more there are. */
    private void memo(Block block, double top) {
        List<String> references = text.stub().rows().stream()
                .filter(row -> row.date() != null)
                .map(Stub.Row::reference)
                .toList();
        double room = Area.points(block.area().width());
        for (int shown = references.size(); shown > 0; shown--) {
            int more = references.size() - shown;
            String said = String.join(", ", references.subList(0, shown)) + (more > 0 ? " and " + more + " more" : "");
            if (measure.width(block.face(), Block.SMALLEST, said) <= room) {
                lines(block, top, List.of(said));
                return;
            }
        }
        if (!references.isEmpty()) {
            lines(block, top, List.of(references.size() == 1 ? "1 entry" : references.size() + " entries"));
        }
    }

    /** Lines below each other in the block's area. */
    private void lines(Block block, double top, List<String> said) {
        Area area = block.area();
        double y = top + Area.points(area.y()) + block.size();
        double room = Area.points(area.width());
        double x = Area.points(area.x())
                + switch (block.align()) {
                    case LEFT -> 0;
                    case RIGHT -> room;
                    case CENTER -> room / 2;
                };
        if (!loose && y + (said.size() - 1) * block.lead() > top + Area.points(area.bottom()) + 0.01) {
            throw Refusal.invalid(
                    "text-too-high",
                    "The " + block.says().words() + " has " + said.size()
                            + " lines, more than there is room for at its place on the check.");
        }
        for (String line : said) {
            put(x, y, block.face(), block.size(), block.align(), line, room);
            y += block.lead();
        }
    }

    private static Box.Rule rule(double left, double y, double right, boolean dashed) {
        return new Box.Rule(left, y, right, y, 0.5, dashed);
    }

    /** Sets a text in its room: it shrinks to a readable minimum, and is never cut. */
    private void put(double x, double y, Face face, double size, Box.Align align, String raw, double room) {
        String said = CONTROL.matcher(raw).replaceAll(" ");
        String missing = measure.missing(face, said);
        if (!loose && !missing.isEmpty()) {
            throw Refusal.invalid(
                    "glyph-missing",
                    "“" + said + "” cannot be printed: the typeface has no character “" + missing
                            + "”. Change the name or reference and lay it out again.");
        }
        double fitting = size;
        while (fitting > Block.SMALLEST && measure.width(face, fitting, said) > room) {
            fitting -= 0.5;
        }
        if (!loose && measure.width(face, fitting, said) > room + 0.01) {
            throw Refusal.invalid(
                    "text-too-long",
                    "“" + said + "” does not fit its place on the check even in the smallest type. Shorten it.");
        }
        boxes.add(new Box.Text(x, y, face, fitting, align, said));
    }
}
