package leveltally.core.ledger;

/** A way to pay of one bank account. */
public record WayId(long value) {}
