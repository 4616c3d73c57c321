package leveltally.core.electronic;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;

/**
 * One payment as an ACH file carries it, in the letters and the room it has there.
 *
 * @param sequence the last seven digits of its trace number, by which a return finds the payment
 * @param bank the routing number of the payee's bank, and {@code account} the number there
 * @param savings a savings account, not a checking account
 * @param amount of USD; zero for a prenotification
 * @param reference the payment's own number, at most 15 characters
 * @param payee at most as many characters as its record has room for; a longer name is cut
 * @param addenda what is said of the payment, at most 80 characters each
 */
public record AchEntry(
        int sequence,
        RoutingNumber bank,
        String account,
        boolean savings,
        Money amount,
        String reference,
        String payee,
        List<String> addenda) {
    /** 99,999,999.99: ten digits of cents. */
    public static final long MOST_MINOR = 9_999_999_999L;

    private static final int MOST_SEQUENCE = 9_999_999;
    private static final int LONGEST_ACCOUNT = 17;
    private static final int LONGEST_REFERENCE = 15;
    static final int ADDENDUM = 80;

    /** @throws Refusal in a sentence, when it has no place in the records */
    public AchEntry {
        addenda = plain(addenda);
        payee = PlainText.ACH.of(payee).strip();
        reference = PlainText.ACH.of(reference);
        if (!amount.currency().getCurrencyCode().equals("USD")) {
            throw Refusal.invalid("ach-currency", "ACH carries USD only, not " + amount.currency() + ".");
        }
        if (amount.isNegative() || amount.minor() > MOST_MINOR) {
            throw Refusal.invalid(
                    "ach-amount",
                    "An entry has room for 0.01 to 99,999,999.99, not for " + amount.plain() + ". Pay it by wire.");
        }
        if (!isAccount(account)) {
            throw Refusal.invalid("ach-account", "An entry has room for an account number of 17 digits and letters.");
        }
        if (sequence < 1 || sequence > MOST_SEQUENCE) {
            throw new IllegalArgumentException("sequence: " + sequence + " has no seven digits");
        }
        if (payee.isEmpty() || reference.length() > LONGEST_REFERENCE) {
            throw new IllegalArgumentException(
                    "entry " + sequence + ": a payee, and at most 15 characters of reference");
        }
        for (String text : addenda) {
            if (text.length() > ADDENDUM) {
                throw new IllegalArgumentException("entry " + sequence + ": an addendum has at most 80 characters");
            }
        }
    }

    // there may be a hundred thousand in a file: neither a pattern nor a copy where none is needed
    private static boolean isAccount(String account) {
        boolean fits = !account.isEmpty() && account.length() <= LONGEST_ACCOUNT;
        for (int i = 0; i < account.length() && fits; i++) {
            char one = account.charAt(i);
            fits = one >= '0' && one <= '9' || one >= 'A' && one <= 'Z' || one >= 'a' && one <= 'z' || one == '-';
        }
        return fits;
    }

    private static List<String> plain(List<String> texts) {
        for (String text : texts) {
            if (!PlainText.ACH.isPlain(text)) {
                return texts.stream().map(PlainText.ACH::of).toList();
            }
        }
        return List.copyOf(texts);
    }

    public boolean isPrenotification() {
        return amount.isZero();
    }
}
