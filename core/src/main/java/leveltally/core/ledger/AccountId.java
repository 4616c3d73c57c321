package leveltally.core.ledger;

/** An account of the ledger. */
public record AccountId(long value) {}
