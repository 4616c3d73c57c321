package leveltally.server.workline;

/** Something the search found, and where it is shown. */
public record FoundView(String kind, String title, String detail, String address) {}
