package leveltally.server.ledger;

/** A month, and whether it is locked. */
public record PeriodView(String month, String name, boolean locked) {}
