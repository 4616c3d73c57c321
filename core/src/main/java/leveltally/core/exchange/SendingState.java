package leveltally.core.exchange;

/** How far a file is on its way. */
public enum SendingState {
    WAITING("on its way"),
    SENT("sent"),
    /** It needs somebody: nothing was sent. */
    STUCK("not sent"),
    /** The connection was lost at the last step. */
    UNKNOWN("not known");

    private final String words;

    SendingState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
