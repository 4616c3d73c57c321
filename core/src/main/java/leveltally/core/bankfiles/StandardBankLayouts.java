package leveltally.core.bankfiles;

import static leveltally.core.bankfiles.LayoutField.constant;
import static leveltally.core.bankfiles.LayoutField.of;

import java.util.List;
import java.util.Map;
import leveltally.core.bankfiles.LayoutField.Characters;
import leveltally.core.bankfiles.LayoutField.Decimals;
import leveltally.core.bankfiles.LayoutField.Letters;
import leveltally.core.bankfiles.LayoutField.Sign;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.bankfiles.LayoutRecord.Place;
import leveltally.core.bankfiles.LayoutRecord.Tells;

/** Layouts to begin with, as different as what banks ask for; all of them our own. */
public final class StandardBankLayouts {
    private static final Substitutions ISSUE_OR_VOID =
            new Substitutions(Map.of("ISSUE", "I", "VOID", "V"), Substitutions.Missing.REFUSED, "");

    private StandardBankLayouts() {}

    public static List<Layout> all() {
        return List.of(eightyCharacters(), commaList(), semicolonsWithTotals(), twoRecordsACheck());
    }

    /** What banks tell, as different as they tell it. */
    public static List<Layout> read() {
        return List.of(paidInColumns(), paidList(), statementList());
    }

    /** What banks answer to a file, and what they are told of the checks they ask about. */
    public static List<Layout> answers() {
        return List.of(answerList(), decisionList());
    }

    /** An answer: a line for the file, then one for each check that was refused. */
    public static Layout answerList() {
        return reading(
                "Answer, semicolons",
                Layout.Use.ANSWER,
                "UTF-8",
                new Shape.Delimited(';', '"', Shape.Quoting.WHERE_NEEDED, Shape.Escape.DOUBLED),
                header(
                        constant("record", "ANSWER"),
                        of("file", Source.FILE_NAME, 0),
                        of("answer", Source.FILE_ANSWER, 0),
                        of("why", Source.FILE_NOTE, 0)),
                detail(
                        Tells.BOTH,
                        constant("record", "CHECK"),
                        of("check", Source.NUMBER_AS_PRINTED, 0),
                        of("why", Source.TEXT, 0)));
    }

    /** Pay or return, check by check. */
    public static Layout decisionList() {
        return new Layout(
                "Decisions, semicolons",
                Layout.Use.DECISIONS,
                "UTF-8",
                false,
                Layout.LineEnd.CRLF,
                new Shape.Delimited(';', '"', Shape.Quoting.WHERE_NEEDED, Shape.Escape.DOUBLED),
                "decisions-{date:yyyy-MM-dd}-{serial}.csv",
                List.of(detail(
                        Tells.BOTH,
                        constant("record", "DECISION"),
                        of("check", Source.NUMBER_AS_PRINTED, 0),
                        of("amount", Source.AMOUNT, 0),
                        of("decision", Source.KIND, 0),
                        of("paid on", Source.EVENT_DATE, 0).saying("yyyy-MM-dd"),
                        of("reference", Source.REFERENCE, 0),
                        of("why", Source.TEXT, 60)
                                .with(new Characters("", Map.of(";", ",", "\"", "'"), Characters.Beyond.REFUSED, ""))
                                .cutting())));
    }

    /** Paid checks in fixed columns, with a trailer that counts and sums them. */
    public static Layout paidInColumns() {
        return reading(
                "Paid checks, 60 characters",
                Layout.Use.PAID_CHECKS,
                "US-ASCII",
                new Shape.Fixed(),
                header(
                        constant("record", "1PAID"),
                        figure("account number", Source.ACCOUNT_NUMBER, 12),
                        day("until", Source.TO_DATE, "yyyyMMdd"),
                        filler(35)),
                detail(
                        Tells.BOTH,
                        constant("record", "5"),
                        of("kind", Source.KIND, 1)
                                .with(new Substitutions(
                                        Map.of("PAID", "P", "REVERSED", "R"), Substitutions.Missing.REFUSED, "")),
                        figure("check number", Source.NUMBER, 10),
                        figure("amount", Source.AMOUNT, 12).with(Decimals.IMPLIED),
                        day("paid on", Source.EVENT_DATE, "yyyyMMdd"),
                        of("reference", Source.REFERENCE, 20),
                        filler(8)),
                trailer(
                        constant("record", "9"),
                        figure("count", Source.COUNT, 8),
                        figure("total", Source.TOTAL, 14).with(Decimals.IMPLIED),
                        figure("numbers", Source.HASH, 12),
                        filler(25)));
    }

    /** Paid checks as a list with a heading. */
    public static Layout paidList() {
        return reading(
                "Paid checks, comma list",
                Layout.Use.PAID_CHECKS,
                "UTF-8",
                new Shape.Delimited(',', '"', Shape.Quoting.WHERE_NEEDED, Shape.Escape.DOUBLED),
                header(
                        constant("a", "paid on"),
                        constant("b", "check"),
                        constant("c", "amount"),
                        constant("d", "reference")),
                detail(
                        Tells.BOTH,
                        of("paid on", Source.EVENT_DATE, 0).saying("yyyy-MM-dd"),
                        of("check", Source.NUMBER_AS_PRINTED, 0),
                        of("amount", Source.AMOUNT, 0).signed(Sign.LEADING),
                        of("reference", Source.REFERENCE, 0)));
    }

    /** A statement as a list: what went out and what came in apart, the balance after each. */
    public static Layout statementList() {
        return reading(
                "Statement, semicolons, balance after each",
                Layout.Use.STATEMENT,
                "UTF-8",
                new Shape.Delimited(';', '"', Shape.Quoting.WHERE_NEEDED, Shape.Escape.DOUBLED),
                header(
                        constant("record", "STATEMENT"),
                        of("account number", Source.ACCOUNT_NUMBER, 0),
                        of("statement", Source.FILE_SERIAL, 0),
                        of("from", Source.FROM_DATE, 0).saying("yyyy-MM-dd"),
                        of("until", Source.TO_DATE, 0).saying("yyyy-MM-dd"),
                        of("opening", Source.OPENING_BALANCE, 0).signed(Sign.LEADING),
                        of("closing", Source.CLOSING_BALANCE, 0).signed(Sign.LEADING)),
                detail(
                        Tells.BOTH,
                        of("day", Source.EVENT_DATE, 0).saying("yyyy-MM-dd"),
                        of("check", Source.NUMBER_AS_PRINTED, 0),
                        of("out", Source.AMOUNT_OUT, 0),
                        of("in", Source.AMOUNT_IN, 0),
                        of("balance", Source.BALANCE, 0).signed(Sign.LEADING),
                        of("reference", Source.REFERENCE, 0),
                        of("text", Source.TEXT, 0)));
    }

    private static Layout reading(String name, Layout.Use use, String encoding, Shape shape, LayoutRecord... records) {
        return new Layout(name, use, encoding, false, Layout.LineEnd.CRLF, shape, "", List.of(records));
    }

    /** Fixed records with a header and a trailer. */
    public static Layout eightyCharacters() {
        return new Layout(
                "80 characters, header and trailer",
                "ISO-8859-1",
                false,
                Layout.LineEnd.CRLF,
                new Shape.Fixed(),
                "positive-pay-{date:yyyy-MM-dd}-{serial}.txt",
                List.of(
                        header(
                                constant("record", "H"),
                                figure("routing number", Source.ROUTING_NUMBER, 9),
                                figure("account number", Source.ACCOUNT_NUMBER, 12),
                                day("file date", Source.FILE_DATE, "yyyyMMdd"),
                                figure("file serial", Source.FILE_SERIAL, 6),
                                filler(44)),
                        detail(
                                Tells.BOTH,
                                constant("record", "D"),
                                of("kind", Source.KIND, 1).with(ISSUE_OR_VOID),
                                figure("account number", Source.ACCOUNT_NUMBER, 12),
                                figure("check number", Source.NUMBER, 10),
                                figure("amount", Source.AMOUNT, 12).with(Decimals.IMPLIED),
                                day("date", Source.EVENT_DATE, "yyyyMMdd"),
                                of("payee", Source.PAYEE, 36).in(Letters.UPPER).cutting()),
                        trailer(
                                constant("record", "T"),
                                figure("count", Source.COUNT, 8),
                                figure("issued", Source.ISSUE_TOTAL, 14).with(Decimals.IMPLIED),
                                filler(57))));
    }

    /** A plain list with a heading, every text quoted. */
    public static Layout commaList() {
        return new Layout(
                "Comma list, UTF-8",
                "UTF-8",
                true,
                Layout.LineEnd.LF,
                new Shape.Delimited(',', '"', Shape.Quoting.TEXTS, Shape.Escape.DOUBLED),
                "checks_{account}_{date:yyyyMMdd}_{serial:4}.csv",
                List.of(
                        header(
                                constant("a", "account"),
                                constant("b", "check"),
                                constant("c", "kind"),
                                constant("d", "amount"),
                                constant("e", "date"),
                                constant("f", "payee")),
                        detail(
                                Tells.BOTH,
                                of("account", Source.ACCOUNT_NUMBER, 0),
                                of("check", Source.NUMBER_AS_PRINTED, 0),
                                of("kind", Source.KIND, 0).in(Letters.LOWER),
                                of("amount", Source.AMOUNT, 0).with(Decimals.POINT),
                                of("date", Source.EVENT_DATE, 0).saying("yyyy-MM-dd"),
                                of("payee", Source.PAYEE, 0))));
    }

    /** Issues and voids in records of their own, amounts with a comma, totals and sums of numbers at the end. */
    public static Layout semicolonsWithTotals() {
        return new Layout(
                "Semicolons, issues and voids apart, totals",
                "windows-1252",
                false,
                Layout.LineEnd.CRLF,
                new Shape.Delimited(';', '\'', Shape.Quoting.WHERE_NEEDED, Shape.Escape.BACKSLASH),
                "AVIS.{date:ddMMyy}.{serial:3}",
                List.of(
                        header(
                                constant("record", "00"),
                                of("bank", Source.ROUTING_NUMBER, 0),
                                of("account", Source.ACCOUNT_NUMBER, 0),
                                of("currency", Source.CURRENCY, 0),
                                of("made", Source.FILE_DATE, 0).saying("dd.MM.yyyy")),
                        detail(
                                Tells.ISSUES,
                                constant("record", "10"),
                                of("row", Source.ROW, 0),
                                of("check", Source.NUMBER, 0),
                                of("issued on", Source.CHECK_DATE, 0).saying("dd.MM.yyyy"),
                                of("amount", Source.AMOUNT, 0)
                                        .with(Decimals.COMMA)
                                        .signed(Sign.LEADING_ALWAYS),
                                of("payee", Source.PAYEE, 40).cutting()),
                        detail(
                                Tells.VOIDS,
                                constant("record", "20"),
                                of("row", Source.ROW, 0),
                                of("check", Source.NUMBER, 0),
                                of("issued on", Source.CHECK_DATE, 0).saying("dd.MM.yyyy"),
                                of("voided on", Source.EVENT_DATE, 0).saying("dd.MM.yyyy"),
                                of("amount", Source.AMOUNT, 0).with(Decimals.COMMA)),
                        trailer(
                                constant("record", "99"),
                                of("issues", Source.ISSUE_COUNT, 0),
                                of("issued", Source.ISSUE_TOTAL, 0).with(Decimals.COMMA),
                                of("numbers of issues", Source.ISSUE_HASH, 0),
                                of("voids", Source.VOID_COUNT, 0),
                                of("voided", Source.VOID_TOTAL, 0).with(Decimals.COMMA),
                                of("numbers of voids", Source.VOID_HASH, 0),
                                of("records", Source.RECORD_COUNT, 0))));
    }

    /** Records of one length with nothing between them, two for each check, capital letters only. */
    public static Layout twoRecordsACheck() {
        Characters capitals = new Characters("A-Z0-9 .,/-", Map.of("&", "+", "'", ""), Characters.Beyond.OTHER, " ");
        return new Layout(
                "Blocks of 60, two records a check",
                "US-ASCII",
                false,
                Layout.LineEnd.NONE,
                new Shape.Fixed(),
                "PP{serial:6}.DAT",
                List.of(
                        header(
                                constant("record", "BOF"),
                                figure("serial", Source.FILE_SERIAL, 9),
                                day("made", Source.FILE_DATE, "MMddyy"),
                                filler(42)),
                        detail(
                                Tells.BOTH,
                                constant("record", "CK1"),
                                of("check", Source.NUMBER, 11).right(' '),
                                of("kind", Source.KIND, 2)
                                        .with(new Substitutions(
                                                Map.of("VOID", "CN"), Substitutions.Missing.OTHER, "IS")),
                                of("amount", Source.AMOUNT, 14)
                                        .right('0')
                                        .with(Decimals.IMPLIED)
                                        .signed(Sign.TRAILING_ALWAYS),
                                day("date", Source.EVENT_DATE, "MMddyy"),
                                filler(24)),
                        detail(
                                Tells.BOTH,
                                constant("record", "CK2"),
                                of("payee", Source.PAYEE, 28).in(Letters.UPPER).with(capitals),
                                of("payee, second line", Source.PAYEE_GOES_ON, 28)
                                        .in(Letters.UPPER)
                                        .with(capitals)
                                        .cutting(),
                                filler(1)),
                        trailer(
                                constant("record", "EOF"),
                                figure("records", Source.RECORD_COUNT, 9),
                                figure("of both", Source.TOTAL, 16).with(Decimals.IMPLIED),
                                figure("numbers", Source.HASH, 12),
                                filler(20))));
    }

    private static LayoutRecord header(LayoutField... fields) {
        return new LayoutRecord(Place.HEADER, Tells.BOTH, List.of(fields));
    }

    private static LayoutRecord detail(Tells tells, LayoutField... fields) {
        return new LayoutRecord(Place.DETAIL, tells, List.of(fields));
    }

    private static LayoutRecord trailer(LayoutField... fields) {
        return new LayoutRecord(Place.TRAILER, Tells.BOTH, List.of(fields));
    }

    private static LayoutField figure(String name, Source source, int width) {
        return of(name, source, width).right('0');
    }

    private static LayoutField day(String name, Source source, String pattern) {
        return of(name, source, pattern.length()).saying(pattern);
    }

    private static LayoutField filler(int width) {
        return of("blank", Source.FILLER, width);
    }
}
