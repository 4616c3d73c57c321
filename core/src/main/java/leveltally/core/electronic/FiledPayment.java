package leveltally.core.electronic;

import java.util.List;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;

/**
 * A payment on its way into a file, whatever the file's format.
 *
 * @param called the payment's own reference, by which the bank and the payee name it; at most 15 letters and digits
 * @param sequence by which a return of ACH finds it, see {@link #sequence}
 * @param account of the payee
 * @param documents what it pays
 */
public record FiledPayment(
        String called,
        int sequence,
        Money amount,
        BankDetails account,
        String payee,
        List<String> address,
        List<Document> documents) {
    /** As many numbers as returns can tell apart; those above are kept for what balances a batch. */
    static final int SEQUENCES = 9_990_000;

    /**
     * A document it pays.
     *
     * @param credit whether it is a credit, whose amounts reduce what is paid
     * @param paid what is paid of it, less {@code discount}
     */
    public record Document(String reference, boolean credit, Money paid, Money gross, Money discount) {}

    /** The seven digits of a trace number, of a count that goes on for ever; they begin anew after {@link #SEQUENCES}. */
    public static int sequence(long counted) {
        return (int) ((counted - 1) % SEQUENCES) + 1;
    }
}
