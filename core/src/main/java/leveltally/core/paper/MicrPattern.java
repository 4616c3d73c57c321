package leveltally.core.paper;

import leveltally.core.Refusal;

/**
 * What an account has in the two free fields of its MICR line; the transit field is the same everywhere. {@code C} on-us
 * symbol, {@code D} dash, {@code #} a digit of the check number (right aligned, zero filled), {@code K} the account number,
 * spaces and digits as they are.
 *
 * @param auxiliary auxiliary on-us, left of the transit field; empty for none
 * @param onUs right of it
 */
public record MicrPattern(String auxiliary, String onUs) {
    private static final String FIELD = "[CDK# 0-9]*";

    public MicrPattern {
        if (!auxiliary.matches(FIELD) || !onUs.matches(FIELD)) {
            throw new IllegalArgumentException(
                    "MICR pattern: “" + auxiliary + "” and “" + onUs + "” may hold C, D, K, #, digits and spaces only");
        }
    }

    /** Reads what {@link #written} writes: {@code C########C|KC}. */
    public static MicrPattern read(String text) {
        int bar = text.indexOf('|');
        if (bar < 0 || bar != text.lastIndexOf('|')) {
            throw new IllegalArgumentException("MICR pattern: “" + text + "” is not auxiliary on-us|on-us");
        }
        return new MicrPattern(text.substring(0, bar), text.substring(bar + 1));
    }

    public String written() {
        return auxiliary + "|" + onUs;
    }

    /** One field filled in. */
    static String filled(String field, String accountNumber, long checkNumber) {
        int places = (int) field.chars().filter(c -> c == '#').count();
        String digits = places == 0 ? "" : String.format("%0" + places + "d", checkNumber);
        if (digits.length() > places) {
            throw Refusal.invalid(
                    "micr-number-too-long",
                    "Number " + checkNumber + " does not fit the " + places
                            + " places of the account's MICR line. An administrator widens its pattern.");
        }
        StringBuilder filled = new StringBuilder();
        int next = 0;
        for (char c : field.toCharArray()) {
            switch (c) {
                case '#' -> filled.append(digits.charAt(next++));
                case 'K' -> filled.append(accountNumber);
                default -> filled.append(c);
            }
        }
        return filled.toString();
    }
}
