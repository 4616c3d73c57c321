package leveltally.core.selection;

/** Why the criteria looked at an invoice and did not take it; the first that applies, in this order. */
public enum LeftOutReason {
    HELD_INVOICE("held invoice"),
    HELD_VENDOR("held vendor"),
    IN_ANOTHER_BATCH("in another batch"),
    OTHER_CURRENCY("other currency"),
    OTHER_METHOD("other method"),
    DATED_AFTER_CHECK_DATE("dated after the check date"),
    ENTERED_IN_LATER_PERIOD("entered in a later period"),
    TAKEN_OUT_BY_HAND("taken out by hand");

    private final String words;

    LeftOutReason(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
