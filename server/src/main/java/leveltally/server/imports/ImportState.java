package leveltally.server.imports;

/** Where an import stands. */
enum ImportState {
    RECEIVED("waits to be checked"),
    CHECKING("is being checked"),
    COLUMNS("needs its columns named"),
    CHECKED("is checked"),
    WANTED("waits to be brought in"),
    BRINGING("is being brought in"),
    DONE("is brought in"),
    FAILED("could not be read"),
    DISCARDED("was discarded");

    private final String words;

    ImportState(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }

    /** True while the server works on it. */
    boolean isRunning() {
        return this == RECEIVED || this == CHECKING || this == WANTED || this == BRINGING;
    }
}
