package leveltally.core.batches;

/** One payee's payment before it has a number. */
public record ClaimId(long value) {}
