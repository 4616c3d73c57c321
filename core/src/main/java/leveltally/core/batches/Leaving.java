package leveltally.core.batches;

import leveltally.core.vendors.PaymentMethod;

/** How the payments of a batch leave the house once it is approved. */
public enum Leaving {
    ON_PAPER,
    BY_FILE,
    /** Ordered at the bank, one by one, from a list. */
    FROM_LIST,
    /** They left before they were written down. */
    ELSEWHERE;

    /** What people call a state of such a batch. */
    public String inWords(BatchState state) {
        return this == FROM_LIST && state == BatchState.FILED ? "on the list" : state.words();
    }

    public static Leaving of(PaymentMethod method, Purpose purpose) {
        if (purpose.isAfterTheFact()) {
            return ELSEWHERE;
        }
        return switch (method) {
            case CHECK -> ON_PAPER;
            case ACH, CREDIT_TRANSFER -> BY_FILE;
            case WIRE -> FROM_LIST;
            // what was charged to a card was charged elsewhere
            case CARD -> ELSEWHERE;
        };
    }
}
