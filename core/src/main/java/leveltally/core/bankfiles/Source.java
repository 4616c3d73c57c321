package leveltally.core.bankfiles;

import java.util.EnumSet;
import java.util.Set;

/** What fills a field of a bank's file. */
public enum Source {
    CONSTANT(Of.FILE, Form.TEXT),
    /** Nothing but its fill; where a file is read, whatever stands there. */
    FILLER(Of.FILE, Form.TEXT),
    /**
     * ISSUE or VOID, mostly substituted; PAY or RETURN in decisions; PAID or REVERSED in what a bank tells of checks, OUT or IN in
     * a statement, TAKEN or REFUSED in its answers.
     */
    KIND(Of.EVENT, Form.TEXT),
    /** The digits of the check's number. */
    NUMBER(Of.EVENT, Form.FIGURE),
    /** The number with the letters its series puts before it. */
    NUMBER_AS_PRINTED(Of.EVENT, Form.TEXT),
    AMOUNT(Of.EVENT, Form.AMOUNT),
    /** What left the account, where a statement has a column for it; empty for what came in. */
    AMOUNT_OUT(Of.EVENT, Form.AMOUNT, Uses.READ),
    AMOUNT_IN(Of.EVENT, Form.AMOUNT, Uses.READ),
    CHECK_DATE(Of.EVENT, Form.DAY),
    /** The day of the issue, or of the void; in what a bank tells, the day it paid. */
    EVENT_DATE(Of.EVENT, Form.DAY),
    PAYEE(Of.EVENT, Form.TEXT),
    /** What of the payee did not fit into the field of the payee before it, from a word on. */
    PAYEE_GOES_ON(Of.EVENT, Form.TEXT, Uses.WRITTEN),
    /** The events counted from 1. */
    ROW(Of.EVENT, Form.FIGURE),
    /** What a statement says of a movement; why a check was refused, or is returned. */
    TEXT(Of.EVENT, Form.TEXT, Uses.SAID),
    /** How the bank calls a movement. */
    REFERENCE(Of.EVENT, Form.TEXT, Uses.SAID),
    /** What the account stood at after a movement. */
    BALANCE(Of.EVENT, Form.AMOUNT, Uses.READ),
    ACCOUNT_NUMBER(Of.FILE, Form.TEXT),
    ROUTING_NUMBER(Of.FILE, Form.TEXT),
    CURRENCY(Of.FILE, Form.TEXT),
    FILE_DATE(Of.FILE, Form.DAY),
    /** The number of the file, or of the statement. */
    FILE_SERIAL(Of.FILE, Form.FIGURE),
    /** LIVE, or TEST where a bank only tries the file; mostly substituted. */
    LIVE_OR_TEST(Of.FILE, Form.TEXT, Uses.WRITTEN),
    /** The name under which a bank was given the file it answers. */
    FILE_NAME(Of.FILE, Form.TEXT, Uses.ANSWER),
    /** TAKEN or REFUSED: what a bank says of the file as a whole. */
    FILE_ANSWER(Of.FILE, Form.TEXT, Uses.ANSWER),
    /** Why it does. */
    FILE_NOTE(Of.FILE, Form.TEXT, Uses.ANSWER),
    OPENING_BALANCE(Of.FILE, Form.AMOUNT, Uses.READ),
    CLOSING_BALANCE(Of.FILE, Form.AMOUNT, Uses.READ),
    /** From which day on a statement tells. */
    FROM_DATE(Of.FILE, Form.DAY, Uses.READ),
    /** The last day it tells of. */
    TO_DATE(Of.FILE, Form.DAY, Uses.READ),
    /** All records of the file, this one too. */
    RECORD_COUNT(Of.FILE, Form.FIGURE),
    COUNT(Of.FILE, Form.FIGURE),
    ISSUE_COUNT(Of.FILE, Form.FIGURE, Uses.WRITTEN),
    VOID_COUNT(Of.FILE, Form.FIGURE, Uses.WRITTEN),
    /** Of issues and voids added, where a bank asks for it so. */
    TOTAL(Of.FILE, Form.AMOUNT),
    ISSUE_TOTAL(Of.FILE, Form.AMOUNT, Uses.WRITTEN),
    VOID_TOTAL(Of.FILE, Form.AMOUNT, Uses.WRITTEN),
    /** The numbers of the checks added up; of a sum too long for its field the last digits, as such sums are. */
    HASH(Of.FILE, Form.HASH),
    ISSUE_HASH(Of.FILE, Form.HASH, Uses.WRITTEN),
    VOID_HASH(Of.FILE, Form.HASH, Uses.WRITTEN);

    private final Of of;
    private final Form form;
    private final Set<Layout.Use> uses;

    Source(Of of, Form form) {
        this(of, form, EnumSet.allOf(Layout.Use.class));
    }

    Source(Of of, Form form, Set<Layout.Use> uses) {
        this.of = of;
        this.form = form;
        this.uses = uses;
    }

    /** In which files it stands, where not in all. */
    private static final class Uses {
        static final Set<Layout.Use> WRITTEN = EnumSet.of(Layout.Use.POSITIVE_PAY);
        static final Set<Layout.Use> READ = EnumSet.of(Layout.Use.PAID_CHECKS, Layout.Use.STATEMENT);
        static final Set<Layout.Use> SAID = EnumSet.complementOf(EnumSet.of(Layout.Use.POSITIVE_PAY));
        static final Set<Layout.Use> ANSWER = EnumSet.of(Layout.Use.ANSWER);
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

    /** Whether a file of this use can hold it. */
    boolean standsIn(Layout.Use use) {
        return uses.contains(use);
    }
}
