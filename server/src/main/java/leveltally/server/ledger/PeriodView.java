package leveltally.server.ledger;

/**
 * A month, and whether it is locked, or being closed; {@code counted} says which of the company's year it is.
 *
 * @param stand whether it is open, being closed or locked, in words
 */
public record PeriodView(String month, String name, String counted, boolean locked, boolean closing, String stand) {}
