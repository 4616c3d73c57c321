package leveltally.practicebank;

/** Why the bank does not take a file, in a sentence. */
public final class Unreadable extends Exception {
    private static final long serialVersionUID = 1;

    Unreadable(String sentence) {
        super(sentence);
    }

    public String sentence() {
        return String.valueOf(getMessage());
    }
}
