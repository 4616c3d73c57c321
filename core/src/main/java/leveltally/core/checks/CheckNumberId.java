package leveltally.core.checks;

/** One number of one series; the number itself is a field of it. */
public record CheckNumberId(long value) {}
