package leveltally.core.bankfiles;

/** What the bank said of a file. */
public enum FileState {
    /** Nothing yet: nobody knows whether it has it. */
    MADE("not known yet"),
    ACCEPTED("taken"),
    REFUSED("refused");

    private final String words;

    FileState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
