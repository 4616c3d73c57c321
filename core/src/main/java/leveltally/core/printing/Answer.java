package leveltally.core.printing;

/** What a person says of a sheet after looking at it. */
public enum Answer {
    GOOD("good"),
    SPOILED("spoiled"),
    /** Nothing is on it: it prints on its own number. */
    BLANK("still blank"),
    /** Its paper is damaged: it prints on its own number once more, where the series allows that. */
    AGAIN("damaged, to be printed again");

    private final String words;

    Answer(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True for a sheet that prints on its own number. */
    public boolean keepsNumber() {
        return this == BLANK || this == AGAIN;
    }
}
