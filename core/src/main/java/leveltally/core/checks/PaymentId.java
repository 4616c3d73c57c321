package leveltally.core.checks;

/** A payment that left a batch. */
public record PaymentId(long value) {}
