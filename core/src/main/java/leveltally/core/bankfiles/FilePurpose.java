package leveltally.core.bankfiles;

/** What a file for the bank is for. */
public enum FilePurpose {
    /** Tells which checks are real; its items are what was told of them. */
    POSITIVE_PAY,
    /** Tells which of the checks a bank asks about are paid, and which returned. */
    DECISIONS,
    /** Pays; its items are payments. */
    ELECTRONIC
}
