package leveltally.server.ledger;

/** A month, and whether it is locked; {@code counted} says which of the company's year it is. */
public record PeriodView(String month, String name, String counted, boolean locked) {}
