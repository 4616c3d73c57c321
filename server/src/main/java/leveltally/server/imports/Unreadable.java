package leveltally.server.imports;

/** A file that cannot be read at all, in words for whoever sent it. */
final class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1;

    Unreadable(String sentence) {
        super(sentence);
    }
}
