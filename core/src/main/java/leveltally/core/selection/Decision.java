package leveltally.core.selection;

import leveltally.core.money.Money;
import leveltally.core.terms.PartPayment;

/** What became of one candidate. */
public sealed interface Decision {

    /**
     * It goes into the batch.
     *
     * @param credit what credits settle of it
     * @param payment what cash and discount settle of the rest
     * @param byHand somebody took it in by hand
     */
    record Taken(Money credit, PartPayment payment, boolean byHand) implements Decision {}

    /**
     * It stays out.
     *
     * @param detail the hold's reason or the other batch's name; empty where the reason says all
     */
    record LeftOut(LeftOutReason reason, String detail) implements Decision {
        /** {@code held invoice: wrong price}. */
        public String inWords() {
            return reason.words() + (detail.isEmpty() ? "" : ": " + detail);
        }
    }
}
