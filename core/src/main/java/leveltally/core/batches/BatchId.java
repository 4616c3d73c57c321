package leveltally.core.batches;

/** A batch of payments. */
public record BatchId(long value) {}
