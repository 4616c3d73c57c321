package leveltally.server.checks;

/** A series to choose. */
public record SeriesView(long id, String name, String account, long bankAccount) {}
