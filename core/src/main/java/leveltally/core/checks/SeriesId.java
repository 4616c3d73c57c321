package leveltally.core.checks;

/** A series: one run of check numbers of a bank account. */
public record SeriesId(long value) {}
