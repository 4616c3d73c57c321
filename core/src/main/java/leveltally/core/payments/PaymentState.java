package leveltally.core.payments;

import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;

/** The life of a payment; {@link #to} is the only gate between its states. */
public enum PaymentState {
    /** Numbered or filed, not in the ledger. */
    PREPARED("prepared"),
    TAKEN_OUT("taken out"),
    OUTSTANDING("outstanding"),
    STOPPED("stopped"),
    CLEARED("cleared"),
    /** Sent back by the bank; the ledger still has it. */
    RETURNED("returned"),
    /** Undone, as a check is. */
    VOIDED("voided"),
    /** Undone, as a payment without paper is. */
    REVERSED("reversed");

    private static final Map<PaymentState, Set<PaymentState>> ALLOWED = Map.of(
            PREPARED, Set.of(OUTSTANDING, TAKEN_OUT),
            OUTSTANDING, Set.of(STOPPED, CLEARED, RETURNED, VOIDED, REVERSED),
            STOPPED, Set.of(OUTSTANDING, VOIDED),
            CLEARED, Set.of(OUTSTANDING, RETURNED, REVERSED),
            RETURNED, Set.of(OUTSTANDING, CLEARED, REVERSED));

    private final String words;

    PaymentState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The states a payment in this one can reach in one step. */
    public Set<PaymentState> next() {
        return ALLOWED.getOrDefault(this, Set.of());
    }

    /** True while the ledger has it: posted and not undone. */
    public boolean isInTheLedger() {
        return this == OUTSTANDING || this == STOPPED || this == CLEARED || this == RETURNED;
    }

    /** True while the bank may still pay it. */
    public boolean waitsForItsBank() {
        return this == PREPARED || this == OUTSTANDING || this == STOPPED;
    }

    /**
     * @param name what people call the payment, such as {@code Check 10012}
     * @throws Refusal when a payment in this state cannot become {@code next}
     */
    public PaymentState to(PaymentState next, String name) {
        if (!next().contains(next)) {
            throw Refusal.conflict(
                    "wrong-payment-state",
                    name + " is " + words + ", so it cannot become " + next.words
                            + ". Look at its history in the register.");
        }
        return next;
    }
}
