package leveltally.core.exchange;

/** How files reach a bank where nobody carries them. */
public enum ChannelKind {
    FOLDER("a folder of this server"),
    SFTP("SFTP"),
    /** Only in the demo. */
    PRACTICE("the bank to practise on");

    private final String words;

    ChannelKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
