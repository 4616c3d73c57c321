package leveltally.core.exchange;

/**
 * What comes next for a file on its way. It is laid whole under a name of its own, which no bank reads, and then given its name in
 * one step; before that step it is written down that it begins. So a file never stands twice under one name, and where it
 * cannot be told whether the bank took it, nothing is sent again.
 */
public enum Placing {
    LAY,
    /** It lies there whole; it gets its name. */
    NAME,
    SENT,
    /** The bank has another file of this name. */
    OTHER_THERE,
    NOT_KNOWN;

    /** What is found under the file's name. */
    public enum Found {
        NOTHING,
        SAME,
        OTHER
    }

    /**
     * @param namingBegun the last step was begun before
     * @param laid it lies there whole under its own name
     */
    public static Placing next(boolean namingBegun, Found found, boolean laid) {
        return switch (found) {
            case SAME -> SENT;
            case OTHER -> OTHER_THERE;
            case NOTHING -> !namingBegun ? LAY : laid ? NAME : NOT_KNOWN;
        };
    }
}
