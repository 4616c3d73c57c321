package leveltally.core.printing;

/** What a person says of a sheet after looking at it. */
public enum Answer {
    GOOD,
    SPOILED,
    /** Nothing is on it: it prints on its own number. */
    BLANK
}
