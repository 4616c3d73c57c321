package leveltally.core.bankfiles;

import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Supplier;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Writes one field of a file many times. What was written for a value before is written again, and plain figures are written
 * digit by digit; whatever else there is to a field {@link FieldText} knows.
 */
final class FieldPen {
    private static final int MOST_KEPT = 4_096;

    private final LayoutField field;
    private final Shape shape;
    private final Consumer<String> problem;
    private final Charset charset;
    private final CharsetEncoder encoder;
    private final FieldText text;
    private final boolean plainFigures;
    private final boolean plainTexts;
    /** Whether a figure is its digits and nothing else. */
    private final boolean bareFigures;

    private final char around;
    private final boolean quotesFigures;
    private final Map<Object, byte[]> written = new HashMap<>();
    private @Nullable Object last;
    private byte[] lastWritten = {};
    private boolean told;

    /** @param problem told in a sentence what does not fit */
    FieldPen(LayoutField field, Shape shape, Charset charset, Consumer<String> problem) {
        this.field = field;
        this.shape = shape;
        this.charset = charset;
        this.encoder = charset.newEncoder();
        this.problem = sentence -> {
            told = true;
            problem.accept(sentence);
        };
        this.text = new FieldText(field, shape, this.problem);
        this.quotesFigures = shape instanceof Shape.Delimited by && by.quoting() == Shape.Quoting.ALWAYS;
        this.around = shape instanceof Shape.Delimited by ? by.quote() : ' ';
        this.plainFigures = isPlain();
        this.bareFigures = plainFigures && field.width() == 0 && !quotesFigures;
        this.plainTexts = plainFigures && field.letters() == LayoutField.Letters.AS_THEY_ARE && separatesPlainly();
    }

    LayoutField field() {
        return field;
    }

    /** Whether nothing becomes of a figure but its place. */
    private boolean isPlain() {
        String figures = "0123456789" + (field.sign() == LayoutField.Sign.NONE ? "" : "+-")
                + (field.decimals() == LayoutField.Decimals.COMMA ? "," : ".");
        boolean special = shape instanceof Shape.Delimited by
                && (by.quote() > '~' || figures.indexOf(by.separator()) >= 0 || figures.indexOf(by.quote()) >= 0);
        return !special
                && RecordBytes.hasAscii(charset)
                && field.fill() <= '~'
                && field.substitutions().equals(LayoutField.Substitutions.NONE)
                && field.characters().equals(LayoutField.Characters.ALL);
    }

    /** Whether no letter or digit separates or quotes. */
    private boolean separatesPlainly() {
        return !(shape instanceof Shape.Delimited by)
                || !Character.isLetterOrDigit(by.separator()) && !Character.isLetterOrDigit(by.quote());
    }

    /** A text that comes again: a payee, or one of the layout. */
    void text(String value, RecordBytes to) {
        to.put(kept(value, () -> value));
    }

    /** A text that comes once, such as a number with its letters. */
    void once(String value, RecordBytes to) {
        int padding = padding(value.length());
        if (!plainTexts || padding < 0 || !isPlain(value)) {
            to.put(placed(value, ""));
            return;
        }
        if (quotesTexts()) {
            to.put(around);
        }
        if (field.align() == LayoutField.Align.RIGHT) {
            to.fill(field.fill(), padding);
            to.put(value);
        } else {
            to.put(value);
            to.fill(field.fill(), padding);
        }
        if (quotesTexts()) {
            to.put(around);
        }
    }

    /** Letters and digits, which nobody has to quote. */
    private static boolean isPlain(String value) {
        for (int i = 0; i < value.length(); i++) {
            char one = value.charAt(i);
            if (one > '~' || !Character.isLetterOrDigit(one)) {
                return false;
            }
        }
        return true;
    }

    private boolean quotesTexts() {
        return shape instanceof Shape.Delimited by
                && (by.quoting() == Shape.Quoting.ALWAYS || by.quoting() == Shape.Quoting.TEXTS);
    }

    /** How much fills it up; below zero where it does not fit. */
    private int padding(int length) {
        boolean fills = shape instanceof Shape.Fixed || field.fill() != ' ';
        int room = field.width() == 0 ? 0 : field.width() - length;
        return room < 0 || fills ? room : 0;
    }

    void day(LocalDate day, RecordBytes to) {
        to.put(kept(day, () -> text.day(day)));
    }

    void hash(long sum, RecordBytes to) {
        to.put(placed(text.hash(sum), ""));
    }

    private byte[] kept(Object of, Supplier<String> value) {
        if (of == last) {
            return lastWritten;
        }
        byte[] known = written.get(of);
        if (known == null) {
            told = false;
            known = placed(value.get(), "");
            if (told) {
                return known;
            }
            // another file may have any number of payees
            if (written.size() == MOST_KEPT) {
                written.clear();
            }
            written.put(of, known);
        }
        last = of;
        lastWritten = known;
        return known;
    }

    void figure(long value, RecordBytes to) {
        if (bareFigures && value >= 0) {
            to.digits(value, digits(value));
        } else if (!plainFigures || value < 0 || !place(value, -1, "", to)) {
            to.put(placed(String.valueOf(value), ""));
        }
    }

    void amount(Money amount, RecordBytes to) {
        int decimals = field.decimals() == LayoutField.Decimals.IMPLIED
                ? -1
                : amount.currency().getDefaultFractionDigits();
        boolean fits = !amount.isNegative() || field.sign() != LayoutField.Sign.NONE;
        if (!plainFigures || !fits || !place(Math.abs(amount.minor()), decimals, text.sign(amount), to)) {
            to.put(placed(text.amount(amount), text.sign(amount)));
        }
    }

    /**
     * @param decimals how many digits stand behind the mark; below one for none
     * @return false where it does not fit, which is told elsewhere; nothing is written then
     */
    private boolean place(long size, int decimals, String sign, RecordBytes to) {
        int digits = digits(size);
        int behind = Math.max(decimals, 0);
        int length = (behind == 0 ? digits : Math.max(digits, behind + 1) + 1) + sign.length();
        int padding = padding(length);
        if (size < 0 || padding < 0) {
            return false;
        }
        boolean right = field.align() == LayoutField.Align.RIGHT;
        boolean trailing =
                field.sign() == LayoutField.Sign.TRAILING || field.sign() == LayoutField.Sign.TRAILING_ALWAYS;
        // zeros stand between a sign and its figure, blanks before both
        boolean signFirst = !trailing && (!right || field.fill() != ' ');
        if (quotesFigures) {
            to.put(around);
        }
        if (signFirst) {
            to.put(sign);
        }
        if (right) {
            to.fill(field.fill(), padding);
        }
        if (!trailing && !signFirst) {
            to.put(sign);
        }
        if (behind == 0) {
            to.digits(size, digits);
        } else {
            to.digits(size / POWERS[behind], Math.max(digits - behind, 1));
            to.put(field.decimals() == LayoutField.Decimals.COMMA ? ',' : '.');
            to.digits(size % POWERS[behind], behind);
        }
        if (trailing) {
            to.put(sign);
        }
        if (!right) {
            to.fill(field.fill(), padding);
        }
        if (quotesFigures) {
            to.put(around);
        }
        return true;
    }

    private static final long[] POWERS = new long[19];

    static {
        POWERS[0] = 1;
        for (int i = 1; i < POWERS.length; i++) {
            POWERS[i] = POWERS[i - 1] * 10;
        }
    }

    private static int digits(long size) {
        int digits = 1;
        while (digits < POWERS.length && size >= POWERS[digits]) {
            digits++;
        }
        return digits;
    }

    private byte[] placed(String value, String sign) {
        String placed = text.placed(text.written(value), sign);
        checkCharacters(placed);
        return (shape instanceof Shape.Delimited by ? delimited(placed, by) : placed).getBytes(charset);
    }

    private String delimited(String value, Shape.Delimited by) {
        String quote = String.valueOf(by.quote());
        String separator = String.valueOf(by.separator());
        boolean special = value.contains(separator) || value.contains(quote);
        boolean quoted = switch (by.quoting()) {
            case NEVER -> false;
            case WHERE_NEEDED -> special;
            case TEXTS -> field.source().form() == Source.Form.TEXT;
            case ALWAYS -> true;
        };
        boolean inTheWay = quoted ? value.contains(quote) : special;
        if (inTheWay && (by.escape() == Shape.Escape.NONE || !quoted && by.escape() == Shape.Escape.DOUBLED)) {
            problem.accept("“" + value
                    + "” holds a character that separates or quotes fields, and the layout has no way to write"
                    + " it. Quote it, or name what replaces it.");
        }
        String text = value;
        if (by.escape() == Shape.Escape.BACKSLASH) {
            text = text.replace("\\", "\\\\").replace(quote, "\\" + quote);
            text = quoted ? text : text.replace(separator, "\\" + separator);
        } else if (quoted && by.escape() == Shape.Escape.DOUBLED) {
            text = text.replace(quote, quote + quote);
        }
        return quoted ? quote + text + quote : text;
    }

    private void checkCharacters(String value) {
        if (!encoder.canEncode(value)) {
            value.codePoints()
                    .filter(c -> !encoder.canEncode(Character.toString(c)))
                    .findFirst()
                    .ifPresent(
                            c -> problem.accept("“" + Character.toString(c) + "” in “" + value.strip() + "” is not in "
                                    + encoder.charset().name() + ". Name what replaces it, or change the encoding."));
        }
    }
}
