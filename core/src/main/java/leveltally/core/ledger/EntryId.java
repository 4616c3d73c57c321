package leveltally.core.ledger;

/** A journal entry. */
public record EntryId(long value) {}
