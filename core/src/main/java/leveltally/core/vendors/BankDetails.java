package leveltally.core.vendors;

import java.math.BigInteger;
import java.util.Locale;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;

/**
 * Where a credit transfer goes: an IBAN (ISO 13616), or a routing number with an account number.
 *
 * @param routing nine digits with a check digit that fits; empty with an IBAN
 * @param account the IBAN, or the account number, without spaces
 */
public record BankDetails(String routing, String account) {
    private static final BigInteger NINETY_SEVEN = BigInteger.valueOf(97);

    /** Reads what somebody typed; an IBAN when no routing number is given. */
    public static BankDetails typed(String routing, String account) {
        String number = account.replaceAll("[\\s-]", "").toUpperCase(Locale.ROOT);
        String bank = routing.replaceAll("[\\s-]", "");
        if (bank.isEmpty()) {
            if (!number.matches("[A-Z]{2}\\d{2}[A-Z0-9]{11,30}") || !isIban(number)) {
                throw Refusal.invalidField(
                        "iban",
                        "account",
                        "This is no IBAN: its check digits do not fit. Compare it with the vendor's letter, or give the "
                                + "routing number with a plain account number.");
            }
            return new BankDetails("", number);
        }
        new RoutingNumber(bank);
        if (!number.matches("\\d{4,17}")) {
            throw Refusal.invalidField("account-number", "account", "An account number has 4 to 17 digits.");
        }
        return new BankDetails(bank, number);
    }

    /** Modulo 97 of the rearranged number is 1 (ISO 7064). */
    private static boolean isIban(String number) {
        StringBuilder digits = new StringBuilder();
        (number.substring(4) + number.substring(0, 4))
                .chars()
                .forEach(c -> digits.append(Character.getNumericValue(c)));
        return new BigInteger(digits.toString()).mod(NINETY_SEVEN).equals(BigInteger.ONE);
    }

    /** One text for one account: what is sealed, and what the keyed hash for comparing is taken of. */
    public String canonical() {
        return routing.isEmpty() ? account : routing + " " + account;
    }

    /** Reads {@link #canonical} back. */
    public static BankDetails of(String canonical) {
        int space = canonical.indexOf(' ');
        return space < 0
                ? new BankDetails("", canonical)
                : new BankDetails(canonical.substring(0, space), canonical.substring(space + 1));
    }

    /** All that a screen shows: the kind, and the last four characters. */
    public String masked() {
        String last = account.substring(Math.max(0, account.length() - 4));
        return (routing.isEmpty() ? "IBAN " + account.substring(0, 2) : "routing " + routing + ", account") + " ••••"
                + last;
    }
}
