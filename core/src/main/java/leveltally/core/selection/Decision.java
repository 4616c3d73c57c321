package leveltally.core.selection;

import leveltally.core.terms.PartPayment;

/** What became of one candidate. */
public sealed interface Decision {

    /** It goes into the batch, paying this. */
    record Taken(PartPayment payment) implements Decision {}

    /**
     * It stays out.
     *
     * @param detail the hold's reason or the other batch's name; empty where the reason says all
     */
    record LeftOut(LeftOutReason reason, String detail) implements Decision {}
}
