package leveltally.core.paper;

/** What a block of a layout stands on. */
public enum Part {
    CHECK("the check"),
    /** Each of them, where there are several. */
    STUB("the stub"),
    /** The remittance advice, a sheet of plain paper of its own. */
    ADVICE("the advice");

    private final String words;

    Part(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
