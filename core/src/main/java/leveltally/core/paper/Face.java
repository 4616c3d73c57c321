package leveltally.core.paper;

/** The typefaces a document is set in; whoever draws has the same files that were measured. */
public enum Face {
    TEXT,
    BOLD,
    MONO
}
