package leveltally.server.printing;

/** What a person says of a sheet after looking at it. */
public enum Answer {
    GOOD,
    SPOILED,
    BLANK
}
