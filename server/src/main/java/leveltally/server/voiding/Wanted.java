package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import org.jspecify.annotations.Nullable;

/**
 * What somebody wants undone, and what shall become of it; kept as it was asked.
 *
 * @param on the day it is dated; null dates each on its own ledger date
 * @param others what becomes of invoices that are not named
 * @param into the draft that takes what comes back open; null for none
 * @param bankReference what the bank calls the return of what is reversed; null where none is, or each has its own
 */
public record Wanted(
        List<One> payments,
        @Nullable LocalDate on,
        Fate others,
        @Nullable Long into,
        @Nullable String bankReference) {
    /** As many as are undone in one deed. */
    public static final int MOST = 500;

    /**
     * @param invoices those whose fate is another than that of the others
     * @param sentBack what the bank says of this one; null where it is undone for the deed's reason
     */
    public record One(
            long payment, List<Single> invoices, @Nullable SentBack sentBack) {
        public One(long payment, List<Single> invoices) {
            this(payment, invoices, null);
        }
    }

    /** A return as a bank tells of it: what it calls it, and why. */
    public record SentBack(String reference, String why) {}

    public record Single(long invoice, Fate fate) {}

    /** What becomes of an invoice. */
    public enum How {
        OPEN,
        HELD,
        OWN_LINES,
        ONE_ACCOUNT,
        /** Of all of a payment: its money goes to the state as unclaimed, and what it settled stays settled. */
        UNCLAIMED
    }

    /**
     * @param account which takes it, for {@link How#ONE_ACCOUNT}
     * @param why it is held; without it the deed's reason stands
     */
    public record Fate(
            How how, @Nullable Long account, @Nullable String why) {
        public static final Fate OPEN = new Fate(How.OPEN, null, null);

        boolean isCancelled() {
            return how == How.OWN_LINES || how == How.ONE_ACCOUNT || how == How.UNCLAIMED;
        }
    }

    /** One payment, its invoices brought back. */
    public static Wanted broughtBack(PaymentId payment, LocalDate on) {
        return new Wanted(List.of(new One(payment.value(), List.of())), on, Fate.OPEN, null, null);
    }

    /** Payments that their bank sent back, each for a reason and under a reference of its own; their invoices are open again. */
    public static Wanted sentBack(Map<PaymentId, SentBack> payments, LocalDate on) {
        return new Wanted(
                payments.entrySet().stream()
                        .map(one -> new One(one.getKey().value(), List.of(), one.getValue()))
                        .toList(),
                on,
                Fate.OPEN,
                null,
                null);
    }

    /** @throws Refusal when it names nothing, or more than one deed takes */
    void mustBeOneDeed() {
        if (payments.isEmpty() || payments.size() > MOST) {
            throw Refusal.invalid(
                    "how-many", "Between 1 and " + MOST + " payments are undone in one deed. Select fewer at a time.");
        }
        if (payments.stream().map(One::payment).distinct().count() < payments.size()) {
            throw Refusal.invalid("named-twice", "A payment is named twice. It can be undone once only.");
        }
    }
}
