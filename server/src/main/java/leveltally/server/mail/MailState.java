package leveltally.server.mail;

/** What became of a mail. */
enum MailState {
    WAITING("waits"),
    SENT("sent"),
    /** Every try failed. */
    GIVEN_UP("given up"),
    /** The address, or its server, would not have it. */
    RETURNED("came back");

    private final String words;

    MailState(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }
}
