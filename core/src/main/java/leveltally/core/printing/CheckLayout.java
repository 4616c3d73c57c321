package leveltally.core.printing;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.Stub;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Lays out one check with its stubs as positioned boxes, once for every use of it.
 *
 * <p>Only what goes to the printer carries number and MICR line; every other view says NOT A CHECK.
 */
public final class CheckLayout {
    private static final DateTimeFormatter FULL = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    private static final DateTimeFormatter SHORT = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);
    private static final double SMALLEST = 7;

    private final CheckForm form;
    private final Measure measure;
    private final List<Box> boxes = new ArrayList<>();

    private CheckLayout(CheckForm form, Measure measure) {
        this.form = form;
        this.measure = measure;
    }

    /**
     * The check of one payment with its stubs as it goes to the printer: one sheet of stock, whatever the number of lines.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static Page forThePrinter(CheckText text, CheckForm form, Paper paper, Measure measure) {
        if (text.number() == null) {
            throw new IllegalArgumentException("check to " + text.payee() + ": nothing is printed without a number");
        }
        return new CheckLayout(form, measure).checkPage(text, paper);
    }

    /**
     * The same to look at: a preview, a copy, what lies in the tray. It says that it is no check.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static Page toLookAt(CheckText text, CheckForm form, Measure measure) {
        return new CheckLayout(form, measure).checkPage(text, null);
    }

    /**
     * The remittance advice of one payment, on plain paper: the lines beyond its stub; empty when the stub lists them all.
     *
     * @throws Refusal when a text cannot be drawn in full
     */
    public static List<Page> advice(CheckText text, CheckForm form, Measure measure) {
        List<Page> pages = new ArrayList<>();
        int perAdvice = (int) ((792 - 150) / form.lead());
        for (int from = room(text, form); from < text.stub().rows().size(); from += perAdvice) {
            pages.add(new CheckLayout(form, measure).advicePage(text, from, perAdvice));
        }
        return pages;
    }

    /** How many rows a stub holds; its note takes the place of one. */
    private static int room(CheckText text, CheckForm form) {
        return form.linesPerStub() - (text.stub().note().isEmpty() ? 0 : 1);
    }

    private Page checkPage(CheckText text, @Nullable Paper paper) {
        face(text, paper);
        double top = form.checkHeight();
        for (int stub = 0; stub < form.stubs(); stub++) {
            boxes.add(new Box.Rule(0, top, form.width(), top, 0.5, true));
            double end = stub(
                    text, top, Math.min(room(text, form), text.stub().rows().size()), 0);
            top = form.paper() ? top + form.stubHeight() : end;
        }
        return new Page(form.width(), form.paper() ? 792 : top + 6, boxes);
    }

    private void face(CheckText text, @Nullable Paper paper) {
        var payer = text.payer();
        double size = form.text();
        double left = form.margin();
        double right = form.width() - form.margin();
        double y = form.margin() + size;
        put(left, y, Face.BOLD, size + 2, Box.Align.LEFT, payer.company(), right - left - 110);
        String corner = paper == null ? "NOT A CHECK" : paper instanceof Paper.Blank ? "" + text.number() : "";
        put(right, y, Face.MONO, size + 2, Box.Align.RIGHT, corner, 110);
        double line = y;
        for (String address : payer.address()) {
            line += form.lead();
            put(left, line, Face.TEXT, size, Box.Align.LEFT, address, (right - left) / 2);
        }
        put(right, y + form.lead(), Face.TEXT, size, Box.Align.RIGHT, Dates.inWords(text.checkDate()), 160);
        if (text.number() != null && paper == null) {
            put(right, y + 2 * form.lead(), Face.MONO, size, Box.Align.RIGHT, "" + text.number(), 120);
        }

        double payeeY = form.paper() ? 100 : 98;
        Money amount = text.amount();
        String figures = (form.paper() ? "**" : "") + amount;
        double frameWidth = Math.max(96, measure.width(Face.BOLD, size + 3, figures) + 16);
        boxes.add(new Box.Frame(right - frameWidth, payeeY - size - 8, frameWidth, size + 14));
        put(right - 8, payeeY, Face.BOLD, size + 3, Box.Align.RIGHT, figures, frameWidth);
        double payeeRoom = right - left - frameWidth - 12;
        put(left, payeeY, Face.BOLD, size + 2, Box.Align.LEFT, text.payee(), payeeRoom);
        boxes.add(new Box.Rule(left, payeeY + 5, left + payeeRoom, payeeY + 5, 0.6, false));

        words(AmountInWords.of(amount, payer.currencyWord()), left, right, payeeY + form.lead() + 10);
        double below = payeeY + 2 * form.lead() + 16;
        for (String address : form.paper() ? text.address() : List.<String>of()) {
            put(left, below, Face.TEXT, size, Box.Align.LEFT, address, 260);
            below += form.lead();
        }
        // on paper nothing but the MICR line stands in the clear band, the lowest 5/8 inch
        double bankY = form.checkHeight() - (form.paper() ? 60 : 10);
        if (form.paper()) {
            put(right - 190, bankY - 34, Face.TEXT, size, Box.Align.LEFT, payer.bank(), 190);
            boxes.add(new Box.Rule(right - 190, bankY, right, bankY, 0.6, false));
            put(right, bankY + 10, Face.TEXT, SMALLEST, Box.Align.RIGHT, payer.validity(), 220);
            if (paper instanceof Paper.Blank blank) {
                boxes.add(blank.line(text.number()).drawn(form.width(), form.checkHeight()));
            } else if (paper == null) {
                put(form.width() / 2, form.checkHeight() - 14, Face.MONO, 12, Box.Align.CENTER, "NOT A CHECK", 300);
            }
        } else {
            put(left, bankY, Face.TEXT, size, Box.Align.LEFT, payer.bank(), (right - left) * 0.6);
        }
    }

    /** The words and a rule line to the end; they shrink to a readable minimum, then take a second line. */
    private void words(String words, double left, double right, double y) {
        double room = right - left;
        for (double size = form.text() + 1; size >= Math.max(SMALLEST, form.text() - 1); size -= 0.5) {
            double width = measure.width(Face.TEXT, size, words);
            if (width <= room) {
                put(left, y, Face.TEXT, size, Box.Align.LEFT, words, room);
                if (width + 8 < room) {
                    boxes.add(new Box.Rule(left + width + 6, y - size / 3, right, y - size / 3, 0.6, false));
                }
                return;
            }
        }
        double size = Math.max(SMALLEST, form.text() - 1);
        int cut = lastSpaceThatFits(words, room, size);
        String second = words.substring(cut + 1);
        put(left, y - size / 2, Face.TEXT, size, Box.Align.LEFT, words.substring(0, cut), room);
        put(left, y + size / 2 + 2, Face.TEXT, size, Box.Align.LEFT, second, room);
        double end = left + measure.width(Face.TEXT, size, second) + 6;
        if (end + 8 < right) {
            boxes.add(new Box.Rule(end, y + size / 6 + 2, right, y + size / 6 + 2, 0.6, false));
        }
    }

    private int lastSpaceThatFits(String words, double room, double size) {
        int cut = words.lastIndexOf(' ');
        while (cut > 0 && measure.width(Face.TEXT, size, words.substring(0, cut)) > room) {
            cut = words.lastIndexOf(' ', cut - 1);
        }
        if (cut <= 0) {
            throw Refusal.invalid("words-too-long", "The amount in words does not fit the check: “" + words + "”.");
        }
        return cut;
    }

    /** @return where the stub ends */
    private double stub(CheckText text, double top, int lines, int from) {
        double left = form.margin();
        double right = form.width() - form.margin();
        double size = form.text();
        double y = top + form.lead() + 4;
        if (form.paper()) {
            put(left, y, Face.BOLD, size, Box.Align.LEFT, text.payee(), 300);
            put(right, y, Face.TEXT, size, Box.Align.RIGHT, Dates.inWords(text.checkDate()), 160);
            y += form.lead() + 4;
        }
        if (!text.stub().note().isEmpty()) {
            put(left, y, Face.TEXT, size, Box.Align.LEFT, text.stub().note(), right - left);
            y += form.lead() + 2;
        }
        y = table(text, from, Math.min(from + lines, text.stub().rows().size()), y);
        int rest = text.stub().rows().size() - from - lines;
        if (rest > 0) {
            put(left, y, Face.TEXT, size, Box.Align.LEFT, "and " + rest + " more on the remittance advice", 300);
        }
        y = total(text, left, right, y + (rest > 0 ? form.lead() : 0));
        return y;
    }

    private double table(CheckText text, int from, int to, double start) {
        double right = form.width() - form.margin();
        double left = form.margin();
        double width = right - left;
        double size = form.text();
        double[] columns = form.paper()
                ? new double[] {left, left + width * 0.3, left + width * 0.62, left + width * 0.8, right}
                : new double[] {left, left + width * 0.34, left + width * 0.64, left + width * 0.8, right};
        String[] heads = {"Reference", "Date", "Settles", "Discount", "Paid"};
        double y = start;
        for (int i = 0; i < heads.length; i++) {
            Box.Align align = i < 2 ? Box.Align.LEFT : Box.Align.RIGHT;
            put(columns[i], y, Face.TEXT, size, align, heads[i], 100);
        }
        boxes.add(new Box.Rule(left, y + 4, right, y + 4, 0.5, false));
        y += 3;
        for (int i = from; i < to; i++) {
            y += form.lead();
            Stub.Row line = text.stub().rows().get(i);
            LocalDate date = line.date();
            put(columns[0], y, Face.MONO, size, Box.Align.LEFT, line.reference(), columns[1] - columns[0] - 4);
            if (date != null) {
                put(columns[1], y, Face.TEXT, size, Box.Align.LEFT, (form.paper() ? FULL : SHORT).format(date), 90);
            }
            put(columns[2], y, Face.TEXT, size, Box.Align.RIGHT, line.settles().toString(), 90);
            if (line.discount().isPositive()) {
                put(
                        columns[3],
                        y,
                        Face.TEXT,
                        size,
                        Box.Align.RIGHT,
                        line.discount().toString(),
                        70);
            }
            put(columns[4], y, Face.TEXT, size, Box.Align.RIGHT, line.paid().toString(), 90);
        }
        return y + form.lead();
    }

    private double total(CheckText text, double left, double right, double y) {
        boxes.add(new Box.Rule(left, y - form.lead() + 5, right, y - form.lead() + 5, 0.5, false));
        int count = text.stub().entries();
        double size = form.text();
        put(left, y + 3, Face.BOLD, size, Box.Align.LEFT, count == 1 ? "1 entry" : count + " entries", 160);
        put(right, y + 3, Face.BOLD, size, Box.Align.RIGHT, text.amount().toString(), 120);
        return y + 8;
    }

    private Page advicePage(CheckText text, int from, int lines) {
        double left = form.margin();
        double y = 60;
        put(left, y, Face.BOLD, 13, Box.Align.LEFT, "Remittance advice", 300);
        put(left, y + 18, Face.TEXT, form.text(), Box.Align.LEFT, text.payee(), 400);
        String number = text.number() == null ? "" : ", check " + text.number();
        put(left, y + 32, Face.TEXT, form.text(), Box.Align.LEFT, Dates.inWords(text.checkDate()) + number, 400);
        stub(text, y + 36, lines, from);
        return new Page(form.width(), 792, boxes);
    }

    /** Sets a text in its room: it shrinks to a readable minimum, and is never cut. */
    private void put(double x, double y, Face face, double size, Box.Align align, String raw, double room) {
        String text = raw.replaceAll("\\p{Cntrl}", " ");
        String missing = measure.missing(face, text);
        if (!missing.isEmpty()) {
            throw Refusal.invalid(
                    "glyph-missing",
                    "“" + text + "” cannot be printed: the typeface has no character “" + missing
                            + "”. Change the name or reference and lay it out again.");
        }
        double fitting = size;
        while (fitting > SMALLEST && measure.width(face, fitting, text) > room) {
            fitting -= 0.5;
        }
        if (form.paper() && measure.width(face, fitting, text) > room + 0.01) {
            throw Refusal.invalid(
                    "text-too-long",
                    "“" + text + "” does not fit its place on the check even in the smallest type. Shorten it.");
        }
        boxes.add(new Box.Text(x, y, face, fitting, align, text));
    }
}
