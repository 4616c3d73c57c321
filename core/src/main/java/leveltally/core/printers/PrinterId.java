package leveltally.core.printers;

/** A printer as the company knows it. */
public record PrinterId(long value) {}
