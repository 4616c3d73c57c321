package leveltally.server.voiding;

/** What a second person is asked for. */
enum UndoingKind {
    UNDO("undo"),
    LIFT_STOP("lift the stop of");

    private final String words;

    UndoingKind(String words) {
        this.words = words;
    }

    /** Before what it is about, in a sentence. */
    String words() {
        return words;
    }
}
