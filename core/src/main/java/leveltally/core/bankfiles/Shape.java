package leveltally.core.bankfiles;

/** How the fields of a record stand side by side. */
public sealed interface Shape {
    /** Each in its width. */
    record Fixed() implements Shape {}

    /**
     * With a character between them.
     *
     * @param quoting which of them stand between quotes
     * @param escape how a quote within a quoted field, or a separator within one that is not, is told from its end
     */
    record Delimited(char separator, char quote, Quoting quoting, Escape escape) implements Shape {}

    /** What is quoted. */
    enum Quoting {
        NEVER,
        /** Only what holds the separator, a quote or a line end. */
        WHERE_NEEDED,
        /** Texts, not figures and days. */
        TEXTS,
        ALWAYS
    }

    /** How what has a meaning is written without it. */
    enum Escape {
        /** There is no way: such a value does not fit. */
        NONE,
        /** A quote is written twice. */
        DOUBLED,
        /** A backslash stands before it. */
        BACKSLASH
    }
}
