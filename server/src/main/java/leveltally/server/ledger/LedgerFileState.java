package leveltally.server.ledger;

/** What became of a file of entries. */
enum LedgerFileState {
    MADE("waits to be taken"),
    TAKEN("taken"),
    TAKEN_BACK("taken back");

    private final String words;

    LedgerFileState(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }
}
