package leveltally.core.payments;

/** A payment that left a batch. */
public record PaymentId(long value) {}
