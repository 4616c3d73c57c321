package leveltally.core.electronic;

/** For whom the entries of an ACH batch are, and how much each says (standard entry class codes of the NACHA rules). */
public enum EntryClass {
    /** To a company, with at most one addendum. */
    CCD(1),
    /** To a person, with at most one addendum. */
    PPD(1),
    /** To a company, with as many addenda as it takes. */
    CTX(9_999);

    private final int mostAddenda;

    EntryClass(int mostAddenda) {
        this.mostAddenda = mostAddenda;
    }

    public int mostAddenda() {
        return mostAddenda;
    }
}
