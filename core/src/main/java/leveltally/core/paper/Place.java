package leveltally.core.paper;

/** Where on its sheet a check stands. */
public enum Place {
    TOP,
    /** A stub above it and one below; the lower half stays empty where there is one only. */
    MIDDLE,
    BOTTOM
}
