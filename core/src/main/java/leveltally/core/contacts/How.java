package leveltally.core.contacts;

/** How a payee was asked. */
public enum How {
    LETTER("letter"),
    MAIL("mail"),
    CALL("telephone call"),
    NOTE("note");

    private final String words;

    How(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
