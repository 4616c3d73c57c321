package leveltally.server.clearing;

/** What stands for a movement, or for a part of it. */
enum MatchKind {
    PAYMENT,
    ENTRY,
    /** Another report of the bank told the same. */
    TOLD,
    /** The bank turned it, or it turned another. */
    TURNED,
    /** The bank owes it. */
    CLAIM,
    /** The bank gave back what it owed. */
    CORRECTION
}
