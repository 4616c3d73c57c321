package leveltally.core.electronic;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import org.jspecify.annotations.Nullable;

/**
 * One payment as a file of credit transfers carries it.
 *
 * @param endToEnd by which every bank on the way, and the payee, name the payment; at most 35 characters
 * @param payee at most 70 characters; a longer name is cut
 * @param address its lines, of which a message takes two of 70 characters
 * @param paid the documents it pays
 */
public record Transfer(
        String endToEnd, Money amount, BankDetails account, String payee, List<String> address, List<Paid> paid) {
    /** What one text of remittance information has room for. */
    static final int REMITTANCE = 140;

    private static final String ID_SIGNS = "./:+-";
    private static final int LONGEST_NAME = 70;
    private static final int LONGEST_ID = 35;
    private static final int MOST_LINES = 2;

    /**
     * A document it pays.
     *
     * @param credit whether it is a credit that reduces what is paid
     */
    public record Paid(
            String reference, boolean credit, @Nullable Money amount) {
        public Paid {
            String plain = PlainText.TRANSFER.of(reference).strip();
            reference = plain.substring(0, Math.min(LONGEST_ID, plain.length()));
        }
    }

    /** @throws Refusal in a sentence, when it has no place in the message */
    public Transfer {
        if (amount.isNegative() || amount.isZero()) {
            throw Refusal.invalid("transfer-amount", "A transfer pays more than nothing, not " + amount.plain() + ".");
        }
        if (!isId(endToEnd)) {
            throw new IllegalArgumentException("end to end: " + endToEnd + " is no id of a transfer");
        }
        String name = PlainText.TRANSFER.of(payee).strip();
        payee = name.substring(0, Math.min(LONGEST_NAME, name.length())).strip();
        if (payee.replace(".", "").isBlank()) {
            throw Refusal.invalid(
                    "transfer-payee",
                    "No letter of the payee's name can be written in a credit transfer. Give the remit-to a name in Latin"
                            + " letters.");
        }
        address = lines(address);
        paid = List.copyOf(paid);
    }

    private static boolean isId(String text) {
        boolean fits = !text.isEmpty() && text.length() <= LONGEST_ID;
        for (int i = 0; i < text.length() && fits; i++) {
            char one = text.charAt(i);
            fits = one >= '0' && one <= '9'
                    || one >= 'A' && one <= 'Z'
                    || one >= 'a' && one <= 'z'
                    || ID_SIGNS.indexOf(one) >= 0;
        }
        return fits;
    }

    private static List<String> lines(List<String> address) {
        List<String> lines = new ArrayList<>(MOST_LINES);
        for (String line : address) {
            String plain = PlainText.TRANSFER.of(line).strip();
            if (!plain.isEmpty() && lines.size() < MOST_LINES) {
                lines.add(plain.substring(0, Math.min(LONGEST_NAME, plain.length())));
            }
        }
        return List.copyOf(lines);
    }

    /**
     * All documents in one text, as many as have room, and how many more there are.
     *
     * @return empty where nothing is said
     */
    String text() {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < paid.size(); i++) {
            String next = (text.isEmpty() ? "" : ", ") + paid.get(i).reference();
            String more = i + 1 < paid.size() ? " + " + (paid.size() - i - 1) + " more" : "";
            if (text.length() + next.length() + more.length() > REMITTANCE) {
                return text + " + " + (paid.size() - i) + " more";
            }
            text.append(next);
        }
        return text.toString();
    }
}
