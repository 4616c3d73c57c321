package leveltally.core.clearing;

import java.time.LocalDate;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.money.Money;

/**
 * One movement on an account, as the bank tells it.
 *
 * @param day the bank's
 * @param amount above zero what came in, below zero what went out
 * @param number of a check as the bank wrote it; empty for what is none
 * @param reversal whether the bank takes back what it did before
 */
public record Movement(LocalDate day, Money amount, String number, String text, String reference, boolean reversal) {
    public static final int LONGEST_NUMBER = 40;
    public static final int LONGEST_TEXT = 300;
    public static final int LONGEST_REFERENCE = 80;

    private static final Pattern LAST_DIGITS = Pattern.compile("^([\\p{L}\\p{P} ]*)0*(\\d{1,18})$");

    public Movement {
        number = shortened(number, LONGEST_NUMBER);
        text = shortened(text, LONGEST_TEXT);
        reference = shortened(reference, LONGEST_REFERENCE);
    }

    private static String shortened(String given, int longest) {
        String one = given.strip().replaceAll("[\\p{Cntrl}\\s]+", " ");
        // never within a character
        return one.codePointCount(0, one.length()) > longest
                ? one.substring(0, one.offsetByCodePoints(0, longest))
                : one;
    }

    /** The digits of the check's number, whatever letters or zeros stand before them; empty where there is none to find. */
    public OptionalLong digits() {
        Matcher found = LAST_DIGITS.matcher(number);
        return found.matches() ? OptionalLong.of(Long.parseLong(found.group(2))) : OptionalLong.empty();
    }

    /** The letters before the digits. */
    public String prefix() {
        Matcher found = LAST_DIGITS.matcher(number);
        return found.matches() ? found.group(1).strip() : "";
    }

    public boolean isCheck() {
        return !number.isEmpty();
    }

    /** What went out; zero where something came in. */
    public Money paid() {
        return amount.isNegative() ? amount.negated() : Money.zero(amount.currency());
    }
}
