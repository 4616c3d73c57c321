package leveltally.core.workline;

import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.money.Money;

/**
 * A few characters, and everything they can mean: part of a name, the beginning or the end of a reference, a number, an amount.
 */
public record Sought(String text) {
    private static final int LEAST = 2;
    private static final int MOST = 60;
    private static final int DIGITS = 12;
    private static final Pattern NUMBER = Pattern.compile("\\d{1," + DIGITS + "}");
    private static final Pattern LETTERED = Pattern.compile("([A-Za-z][A-Za-z-]*)(\\d{1," + DIGITS + "})");
    private static final Pattern AMOUNT = Pattern.compile("\\d{1,3}(,\\d{3})+(\\.\\d+)?|\\d+(\\.\\d+)?");

    /** What was typed, without what stands around it; what is longer than any name is cut. */
    public static Sought of(String typed) {
        String text = typed.strip();
        return new Sought(text.length() > MOST ? text.substring(0, MOST) : text);
    }

    /** Too little to look for. */
    public boolean isTooShort() {
        return text.length() < LEAST;
    }

    /** As SQL's LIKE takes it: the text anywhere. */
    public String within() {
        return "%" + escaped(text) + "%";
    }

    /** As SQL's LIKE takes it: the text at the beginning. */
    public String beginning() {
        return escaped(text) + "%";
    }

    /** As SQL's LIKE takes it: the text at the end of what is kept backwards. */
    public String backwards() {
        return escaped(new StringBuilder(text).reverse().toString()) + "%";
    }

    private static String escaped(String plain) {
        return plain.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_");
    }

    /** The number, where it is one. */
    public OptionalLong number() {
        return NUMBER.matcher(text).matches() ? OptionalLong.of(Long.parseLong(text)) : OptionalLong.empty();
    }

    /** The number of a check from a series whose numbers have letters before them. */
    public record Lettered(String prefix, Sought digits) {}

    /** What was typed as letters and digits, where it is nothing else. */
    public Optional<Lettered> lettered() {
        Matcher parts = LETTERED.matcher(text);
        return parts.matches()
                ? Optional.of(new Lettered(parts.group(1), new Sought(parts.group(2))))
                : Optional.empty();
    }

    /** Numbers from {@code first} to {@code last}. */
    public record Range(long first, long last) {}

    /** The numbers that begin with these digits, as ranges that an index finds: 412 is 412, 4120 to 4129, and so on. */
    public List<Range> numbersBeginningSo() {
        List<Range> ranges = new ArrayList<>();
        if (number().isEmpty() || text.startsWith("0")) {
            return ranges;
        }
        long first = number().getAsLong();
        long last = first;
        for (int digits = text.length(); digits <= DIGITS; digits++) {
            ranges.add(new Range(first, last));
            first *= 10;
            last = last * 10 + 9;
        }
        return ranges;
    }

    /** The amount of this currency, where it is one. */
    public Optional<Money> amountIn(Currency currency) {
        if (!AMOUNT.matcher(text).matches()) {
            return Optional.empty();
        }
        try {
            Money amount = Money.parse(text, currency);
            return amount.isPositive() ? Optional.of(amount) : Optional.empty();
        } catch (IllegalArgumentException | leveltally.core.Refusal noAmount) {
            return Optional.empty();
        }
    }
}
