package leveltally.core.vendors;

/** What a vendor is paid for, where payments of a year are reported to the revenue office. */
public enum Reportable {
    NO("not reported"),
    SERVICES("services"),
    RENT("rent"),
    LEGAL("legal services"),
    ROYALTIES("royalties"),
    OTHER("other income");

    private final String words;

    Reportable(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
