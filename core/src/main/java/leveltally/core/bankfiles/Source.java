package leveltally.core.bankfiles;

/** What fills a field of a bank's file. */
public enum Source {
    CONSTANT(Of.FILE, Form.TEXT),
    /** Nothing but its fill. */
    FILLER(Of.FILE, Form.TEXT),
    /** ISSUE or VOID, mostly substituted. */
    KIND(Of.EVENT, Form.TEXT),
    /** The digits of the check's number. */
    NUMBER(Of.EVENT, Form.FIGURE),
    /** The number with the letters its series puts before it. */
    NUMBER_AS_PRINTED(Of.EVENT, Form.TEXT),
    AMOUNT(Of.EVENT, Form.AMOUNT),
    CHECK_DATE(Of.EVENT, Form.DAY),
    /** The day of the issue, or of the void. */
    EVENT_DATE(Of.EVENT, Form.DAY),
    PAYEE(Of.EVENT, Form.TEXT),
    /** What of the payee did not fit into the field of the payee before it, from a word on. */
    PAYEE_GOES_ON(Of.EVENT, Form.TEXT),
    /** The events counted from 1. */
    ROW(Of.EVENT, Form.FIGURE),
    ACCOUNT_NUMBER(Of.FILE, Form.TEXT),
    ROUTING_NUMBER(Of.FILE, Form.TEXT),
    CURRENCY(Of.FILE, Form.TEXT),
    FILE_DATE(Of.FILE, Form.DAY),
    FILE_SERIAL(Of.FILE, Form.FIGURE),
    /** All records of the file, this one too. */
    RECORD_COUNT(Of.FILE, Form.FIGURE),
    COUNT(Of.FILE, Form.FIGURE),
    ISSUE_COUNT(Of.FILE, Form.FIGURE),
    VOID_COUNT(Of.FILE, Form.FIGURE),
    /** Of issues and voids added, where a bank asks for it so. */
    TOTAL(Of.FILE, Form.AMOUNT),
    ISSUE_TOTAL(Of.FILE, Form.AMOUNT),
    VOID_TOTAL(Of.FILE, Form.AMOUNT),
    /** The numbers of the checks added up; of a sum too long for its field the last digits, as such sums are. */
    HASH(Of.FILE, Form.HASH),
    ISSUE_HASH(Of.FILE, Form.HASH),
    VOID_HASH(Of.FILE, Form.HASH);

    private final Of of;
    private final Form form;

    Source(Of of, Form form) {
        this.of = of;
        this.form = form;
    }

    /** What it is known of. */
    enum Of {
        FILE,
        EVENT
    }

    /** What kind of value it is. */
    enum Form {
        TEXT,
        FIGURE,
        AMOUNT,
        DAY,
        HASH
    }

    /** Whether only a detail knows it. */
    public boolean isOfEvent() {
        return of == Of.EVENT;
    }

    Form form() {
        return form;
    }
}
