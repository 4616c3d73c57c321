package leveltally.core.outside;

import java.util.Locale;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberRange;

/** The number of a payment made elsewhere, as somebody types it. */
public final class OutsideNumber {
    /** The longest reference that banks and card issuers give. */
    private static final int MOST = 35;

    private OutsideNumber() {}

    /**
     * The number of a hand-written check; the prefix of its series may be typed before it or left out.
     *
     * @throws Refusal when it is no number of that series
     */
    public static long ofCheck(String typed, NumberRange of) {
        String number = typed.strip();
        if (number.toUpperCase(Locale.ROOT).startsWith(of.prefix().toUpperCase(Locale.ROOT))) {
            number = number.substring(of.prefix().length());
        }
        if (!number.matches("[0-9]{1,9}")) {
            throw refused(
                    typed.isBlank()
                            ? "Type the number that stands on the check."
                            : typed.strip() + " is no number of these checks: "
                                    + (of.prefix().isEmpty()
                                            ? "they are digits only."
                                            : "they are " + of.prefix() + " and digits."));
        }
        long value = Long.parseLong(number);
        if (!of.holds(value)) {
            Long last = of.last();
            throw refused("The numbers of these checks go from " + of.first() + (last == null ? " on" : " to " + last)
                    + "; " + value + " lies outside.");
        }
        return value;
    }

    /**
     * The reference a bank or a card issuer gave, in capitals, with single spaces.
     *
     * @throws Refusal when it has none, or characters that no such reference has
     */
    public static String ofReference(String typed) {
        String reference = typed.strip().replaceAll("\\s+", " ").toUpperCase(Locale.ROOT);
        if (!reference.matches("[A-Z0-9][A-Z0-9 ./-]*") || reference.length() > MOST) {
            throw refused(
                    reference.isEmpty()
                            ? "Type the reference that the bank or the card's issuer gave it."
                            : "A reference has at most " + MOST + " letters, digits, hyphens, points and slashes; "
                                    + typed.strip() + " is none.");
        }
        return reference;
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("outside-number", "number", sentence);
    }
}
