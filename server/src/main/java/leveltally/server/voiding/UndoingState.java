package leveltally.server.voiding;

/** Where what was asked for stands. */
enum UndoingState {
    ASKED("waits for a second person"),
    DONE("done"),
    REFUSED("refused"),
    TAKEN_BACK("taken back");

    private final String words;

    UndoingState(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }
}
