package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static leveltally.server.App.tomas;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.EntryClass;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.App;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Making;
import leveltally.server.batches.Withdrawing;
import leveltally.server.electronic.Electronic;
import leveltally.server.electronic.Filing;
import leveltally.server.marks.MarkRows;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** Returns, corrections and status reports of payments by file, and what cannot be dealt with by itself. */
class NoticesTest {
    private static final BankAccountId ACCOUNT = App.operations();

    @AfterAll
    static void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** A payment by file that the bank took. */
    private record Sent(
            BatchId batch, long file, long payment, String called, String trace, long minor, String message) {
        String state() {
            return jdbc().sql("SELECT state FROM payment WHERE id = ?")
                    .param(payment)
                    .query(String.class)
                    .single();
        }
    }

    private static Sent sent(PaymentMethod method, String amount, boolean taken, boolean posted) {
        WayId way = Electronic.way(Electronic.wanted(
                method == PaymentMethod.ACH ? Electronic.ach(EntryClass.CCD) : Electronic.transfers()));
        // what is undone must have been in the ledger on a day that has come
        BatchId batch =
                Electronic.approvedToday(way, App.invoice(Electronic.vendor(method, Electronic.account()), amount));
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        if (taken) {
            bean(BankAnswers.class).accepted(ines(), file, "");
        }
        if (posted) {
            bean(Posting.class).post(ines(), batch);
        }
        long payment = number("SELECT id FROM payment WHERE batch_id = ?", batch.value());
        return jdbc().sql("SELECT i.called, i.sequence, p.amount_minor, f.file_name FROM electronic_item i"
                        + " JOIN payment p ON p.id = i.payment_id JOIN bank_file f ON f.id = i.file_id WHERE p.id = ?")
                .param(payment)
                .query((r, n) -> new Sent(
                        batch,
                        file,
                        payment,
                        r.getString("called"),
                        "99004410%07d".formatted(r.getInt("sequence")),
                        r.getLong("amount_minor"),
                        r.getString("file_name").replaceAll("transfers-|\\.xml", "")))
                .single();
    }

    /** An account announced by a file the bank took: its announcement, and the trace number of it. */
    private record Announced(long id, String trace, String vendor) {}

    private static Announced announced() {
        AchAgreement plain = Electronic.ach(EntryClass.CCD);
        WayId way = Electronic.way(Electronic.wanted(new AchAgreement(plain.sender(), false, EntryClass.CCD, 2)));
        String vendor = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        BatchId batch = Electronic.approvedToday(way, App.invoice(vendor, "15.00"));
        long file = bean(Filing.class).announce(ines(), batch);
        bean(BankAnswers.class).accepted(ines(), file, "");
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        return jdbc().sql("SELECT id, sequence FROM announcement WHERE file_id = ?")
                .param(file)
                .query((r, n) -> new Announced(r.getLong("id"), "99004410%07d".formatted(r.getInt("sequence")), vendor))
                .single();
    }

    @Test
    void whatComesBackOfAnAnnouncementKeepsMoneyFromThatAccount() {
        Announced one = announced();
        said(ach(0, returned("R03", one.trace(), 0)));
        assertThat(jdbc().sql("SELECT sent_back FROM announcement WHERE id = ?")
                        .param(one.id())
                        .query(String.class)
                        .single())
                .startsWith("R03: ");
        assertThat(number("SELECT COUNT(*) FROM bank_notice WHERE names = ? AND state = 'DONE'", one.trace()))
                .isEqualTo(1);
    }

    @Test
    void aCorrectionOfAnAnnouncementIsProposedToTwo() {
        Announced one = announced();
        said(ach(0, corrected("C01", one.trace(), "5550001112")));
        assertThat(number(
                        "SELECT COUNT(*) FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'",
                        App.vendor(one.vendor()).value()))
                .isEqualTo(1);
    }

    @Test
    void whatIsStillPendingIsPostedOnceTheBankSaysWhatBecomesOfIt() {
        WayId way = Electronic.way(Electronic.wanted(Electronic.transfers()));
        BatchId batch = Electronic.approvedToday(
                way,
                App.invoice(Electronic.vendor(PaymentMethod.CREDIT_TRANSFER, Electronic.account()), "11.00"),
                App.invoice(Electronic.vendor(PaymentMethod.CREDIT_TRANSFER, Electronic.account()), "12.00"));
        long file = bean(Filing.class).file(ines(), batch).files().get(0);
        String message = jdbc().sql("SELECT file_name FROM bank_file WHERE id = ?")
                .param(file)
                .query(String.class)
                .single()
                .replaceAll("transfers-|\\.xml", "");
        List<String> called = jdbc().sql(
                        "SELECT i.called FROM electronic_item i WHERE i.file_id = ? ORDER BY i.reference")
                .param(file)
                .query(String.class)
                .list();
        assertThat(said(status(
                        message,
                        "<GrpSts>PART</GrpSts>",
                        single(called.get(0), "ACSC") + single(called.get(1), "PDNG"))))
                .contains("Of 1 payment it has not said yet");
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isEqualTo(1);
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), batch)).hasMessageContaining("took no file");
        // not by hand either
        long pending = number("SELECT payment_id FROM electronic_item WHERE called = ?", called.get(1));
        assertThatThrownBy(
                        () -> jdbc().sql("UPDATE payment SET state = 'OUTSTANDING', posted_entry_id = 1 WHERE id = ?")
                                .param(pending)
                                .update())
                .hasMessageContaining("has not said yet what becomes");
        said(status(message, "<GrpSts>PART</GrpSts>", single(called.get(1), "ACSC")));
        assertThat(bean(Posting.class).post(ines(), batch).waiting()).isZero();
    }

    private static String single(String called, String status) {
        return "<TxInfAndSts><OrgnlEndToEndId>" + called + "</OrgnlEndToEndId><TxSts>" + status
                + "</TxSts></TxInfAndSts>";
    }

    private static final String CONTROL = "8220%06d%010d%012d%012d1994400117" + " ".repeat(25) + "990044100000001";

    /** A file of one batch with these pairs of entry and addendum, which come to so many cents. */
    private static byte[] ach(long cents, String... records) {
        List<String> all = new ArrayList<>();
        all.add("101 99440011799900441052611160800A094101MARROW BAY FERRIES     SKERROW TRUST                  ");
        all.add("5220MARROW BAY                          1994400117CCDINVOICES  261116261116   1990044100000001");
        all.addAll(List.of(records));
        long hash = 99_007_305L * (records.length / 2) % 10_000_000_000L;
        all.add(CONTROL.formatted(records.length, hash, 0, cents));
        all.add("9000001000001%08d%010d%012d%012d".formatted(records.length, hash, 0, cents) + " ".repeat(39));
        return (String.join("\n", all) + "\n").getBytes(StandardCharsets.ISO_8859_1);
    }

    private static String[] returned(String code, String trace, long cents) {
        return new String[] {
            "621990073053770031182264     %010d%-15s%-22s  1990073050000001".formatted(cents, "X", "Filed Works"),
            "799%s%s      99007305%-44s990073050000001".formatted(code, trace, "")
        };
    }

    private static String[] corrected(String code, String trace, String right) {
        return new String[] {
            "621990073053770031182264     %010d%-15s%-22s  1990073050000001".formatted(0, "X", "Filed Works"),
            "798%s%s      99007305%-29s%-15s990073050000001".formatted(code, trace, right, "")
        };
    }

    private static String said(byte[] file) {
        return bean(NoticeFiles.class).read(ines(), ACCOUNT, file);
    }

    @Test
    void whatComesBackIsReversedOnceWithItsReason() {
        Sent sent = sent(PaymentMethod.ACH, "71.11", true, true);
        byte[] file = ach(sent.minor(), returned("R03", sent.trace(), sent.minor()));
        assertThat(said(file)).startsWith("1 notice dealt with, 0 wait");
        assertThat(sent.state()).isEqualTo("REVERSED");
        assertThat(jdbc().sql("SELECT state_why FROM payment WHERE id = ?")
                        .param(sent.payment())
                        .query(String.class)
                        .single())
                .contains("R03: there is no such account");
        assertThat(number(
                        "SELECT open_minor FROM invoice i JOIN claim_line l ON l.invoice_id = i.id JOIN payment p ON p.claim_id = l.claim_id WHERE p.id = ?",
                        sent.payment()))
                .isEqualTo(sent.minor());
        assertThat(said(file)).startsWith("0 notices dealt with, 0 wait for somebody, 1 told before");
        // the same payment for another reason
        assertThat(said(ach(sent.minor(), returned("R16", sent.trace(), sent.minor()))))
                .startsWith("0 notices dealt with, 1 waits");
        assertThat(waiting(sent.trace())).contains("is reversed already");
    }

    /** What deserves a look where the same invoice is paid again. */
    private static List<MarkKind> marksOfAnother(Sent sent) {
        long invoice = number(
                "SELECT l.invoice_id FROM claim_line l JOIN payment p ON p.claim_id = l.claim_id WHERE p.id = ?",
                sent.payment());
        DueQuestion asked = DueQuestion.of(ACCOUNT.value(), App.CHECK_DATE.toString(), "2000-01-01", null)
                .by(bean(Batches.class).get(sent.batch()).way())
                .marked(null, String.valueOf(invoice));
        BatchId again = bean(Making.class).make(ines(), App.batch("Sent once more", asked));
        List<MarkKind> kinds = bean(MarkRows.class).of(again, App.TODAY, List.of()).values().stream()
                .flatMap(List::stream)
                .map(Mark::kind)
                .toList();
        bean(Withdrawing.class).withdraw(ines(), again, App.version(again));
        return kinds;
    }

    @Test
    void aVendorIsMarkedUntilItsAccountIsAnother() {
        Sent sent = sent(PaymentMethod.ACH, "70.07", true, true);
        said(ach(sent.minor(), returned("R02", sent.trace(), sent.minor())));
        assertThat(marksOfAnother(sent)).contains(MarkKind.SENT_BACK);
        long remitTo = number(
                "SELECT c.remit_to_id FROM claim c JOIN payment p ON p.claim_id = c.id WHERE p.id = ?", sent.payment());
        VendorId vendor = new VendorId(number("SELECT vendor_id FROM payment WHERE id = ?", sent.payment()));
        BankDetails other = Electronic.account();
        bean(VendorChanges.class)
                .propose(
                        tomas(),
                        vendor,
                        new VendorChanges.Wanted(
                                remitTo, "Filed Works", List.of("1 File Lane"), "41001", false, other, "a letter"));
        assertThat(marksOfAnother(sent)).contains(MarkKind.SENT_BACK);
        Electronic.confirm(vendor, other);
        assertThat(marksOfAnother(sent)).contains(MarkKind.CHANGED_PAYEE).doesNotContain(MarkKind.SENT_BACK);
    }

    private static String waiting(String names) {
        return jdbc().sql("SELECT said FROM bank_notice WHERE names = ? AND state = 'WAITING'")
                .param(names)
                .query(String.class)
                .single();
    }

    @Test
    void oneThatCannotBeDealtWithHoldsUpNoOther() {
        Sent good = sent(PaymentMethod.ACH, "72.22", true, true);
        Sent other = sent(PaymentMethod.ACH, "73.33", true, true);
        List<String> records = new ArrayList<>();
        records.addAll(List.of(returned("R02", "990044109876543", 500)));
        records.addAll(List.of(returned("R02", other.trace(), 7_334)));
        records.addAll(List.of(returned("R02", good.trace(), good.minor())));
        assertThat(said(ach(500 + 7_334 + good.minor(), records.toArray(String[]::new))))
                .startsWith("1 notice dealt with, 2 wait");
        assertThat(good.state()).isEqualTo("REVERSED");
        assertThat(other.state()).isEqualTo("OUTSTANDING");
        assertThat(waiting("990044109876543")).contains("No payment of this account is called so");
        assertThat(waiting(other.trace())).contains("another amount than the 73.33");
        long id = number("SELECT id FROM bank_notice WHERE names = '990044109876543'");
        assertThat(bean(BankNotices.class).again(ines(), id)).isFalse();
        assertThatThrownBy(() -> bean(BankNotices.class).close(ines(), id, " "))
                .hasMessageContaining("Say what became");
        bean(BankNotices.class).close(ines(), id, "of another company, told the bank");
        assertThatThrownBy(() -> bean(BankNotices.class).close(ines(), id, "again"))
                .hasMessageContaining("meanwhile");
    }

    private static String why(Sent sent) {
        return jdbc().sql("SELECT state_why FROM payment WHERE id = ?")
                .param(sent.payment())
                .query(String.class)
                .single();
    }

    /** They are reversed in one deed; one that cannot be is found, and each is kept with its own reason and reference. */
    @Test
    void ofAGroupOneIsRefusedAndTheOthersAreReversed() {
        List<Sent> sent = new ArrayList<>();
        List<String> records = new ArrayList<>();
        long cents = 0;
        for (int i = 0; i < 5; i++) {
            Sent one = sent(PaymentMethod.ACH, "7" + i + ".61", true, true);
            records.addAll(List.of(returned("R0" + (i % 4 + 1), one.trace(), one.minor())));
            cents += one.minor();
            sent.add(one);
        }
        Sent asked = sent.get(1);
        Sent twice = sent.get(3);
        records.addAll(List.of(returned("R16", twice.trace(), twice.minor())));
        long account = number("SELECT id FROM ledger_account WHERE code = '5200'");
        Undoing.Asked question = bean(Undoing.class)
                .undo(
                        ines(),
                        new Wanted(
                                List.of(new Wanted.One(asked.payment(), List.of())),
                                App.TODAY,
                                new Wanted.Fate(Wanted.How.ONE_ACCOUNT, account, null),
                                null,
                                "RET 1"),
                        "never wanted");
        assertThat(question.waits()).isTrue();
        assertThat(said(ach(cents + twice.minor(), records.toArray(String[]::new))))
                .startsWith("4 notices dealt with, 2 wait for somebody, 0 told before");
        for (int i = 0; i < 5; i++) {
            Sent one = sent.get(i);
            assertThat(one.state()).isEqualTo(i == 1 ? "OUTSTANDING" : "REVERSED");
            if (i != 1) {
                String code = "R0" + (i % 4 + 1);
                assertThat(why(one))
                        .startsWith("The bank sent it back, " + code + ": ")
                        .endsWith("; the bank's reference " + code + " " + one.trace());
            }
        }
        assertThat(waiting(asked.trace())).contains("waits for a second person");
        assertThat(waiting(twice.trace())).contains("is reversed already");
        // the last of them were undone together
        assertThat(number(
                        "SELECT COUNT(*) FROM undoing_payment x WHERE x.undoing_id ="
                                + " (SELECT MAX(y.undoing_id) FROM undoing_payment y WHERE y.payment_id = ?)",
                        twice.payment()))
                .isEqualTo(2);
        bean(Questions.class).refuse(ines(), question.id(), "");
        long waits = number("SELECT id FROM bank_notice WHERE names = ? AND state = 'WAITING'", asked.trace());
        assertThat(bean(BankNotices.class).again(ines(), waits)).isTrue();
        assertThat(asked.state()).isEqualTo("REVERSED");
    }

    /** More than are looked up and written down at once, one of them twice. */
    @Test
    void manyAreReadTogether() {
        Sent good = sent(PaymentMethod.ACH, "72.44", true, true);
        List<String> records = new ArrayList<>();
        for (int i = 0; i < 1_002; i++) {
            records.addAll(List.of(returned("R02", "99004410%07d".formatted(9_700_000 + i % 1_001), 0)));
        }
        records.addAll(List.of(returned("R02", good.trace(), good.minor())));
        byte[] file = ach(good.minor(), records.toArray(String[]::new));
        assertThat(said(file)).startsWith("1 notice dealt with, 1001 wait for somebody, 1 told before");
        assertThat(good.state()).isEqualTo("REVERSED");
        assertThat(said(file)).startsWith("0 notices dealt with, 0 wait for somebody, 1003 told before");
    }

    @Test
    void whatIsNotInTheLedgerYetWaitsForAnotherFile() {
        Sent sent = sent(PaymentMethod.ACH, "74.44", false, false);
        assertThat(said(ach(sent.minor(), returned("R04", sent.trace(), sent.minor()))))
                .startsWith("1 notice dealt with");
        assertThat(sent.state()).isEqualTo("PREPARED");
        assertThat(number(
                        "SELECT COUNT(*) FROM electronic_item WHERE payment_id = ? AND file_id IS NULL",
                        sent.payment()))
                .isEqualTo(1);
        assertThat(bean(Filing.class).file(ines(), sent.batch()).files()).hasSize(1);
    }

    @Test
    void aCorrectionBecomesAProposalForTwo() {
        Sent sent = sent(PaymentMethod.ACH, "75.55", true, true);
        assertThat(said(ach(0, corrected("C01", sent.trace(), "5500117")))).startsWith("1 notice dealt with");
        assertThat(jdbc().sql(
                                "SELECT v.after_bank_mask FROM vendor_change v JOIN payment p ON p.vendor_id = v.vendor_id"
                                        + " WHERE p.id = ? AND v.state = 'PROPOSED'")
                        .param(sent.payment())
                        .query(String.class)
                        .single())
                .endsWith("••••0117");
        assertThat(sent.state()).isEqualTo("OUTSTANDING");
        assertThat(said(ach(0, corrected("C04", sent.trace(), "Filed Works Incorporated"))))
                .startsWith("0 notices dealt with, 1 waits");
    }

    private static byte[] status(String message, String file, String transfers) {
        return ("<?xml version=\"1.0\"?><Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:pain.002.001.10\"><CstmrPmtStsRpt>"
                        + "<OrgnlGrpInfAndSts><OrgnlMsgId>" + message + "</OrgnlMsgId>" + file + "</OrgnlGrpInfAndSts>"
                        + transfers + "</CstmrPmtStsRpt></Document>")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static String refused(String reference) {
        return "<OrgnlPmtInfAndSts><OrgnlPmtInfId>x</OrgnlPmtInfId><TxInfAndSts><OrgnlEndToEndId>" + reference
                + "</OrgnlEndToEndId><TxSts>RJCT</TxSts><StsRsnInf><Rsn><Cd>AC04</Cd></Rsn></StsRsnInf></TxInfAndSts></OrgnlPmtInfAndSts>";
    }

    @Test
    void aReportSaysWhatBecameOfAFile() {
        Sent sent = sent(PaymentMethod.CREDIT_TRANSFER, "76.66", false, false);
        assertThat(said(status(sent.message(), "<GrpSts>PDNG</GrpSts>", "")))
                .contains("has not said what becomes of it");
        assertThat(number("SELECT COUNT(*) FROM bank_file WHERE id = ? AND state = 'MADE'", sent.file()))
                .isEqualTo(1);
        assertThat(said(status(sent.message(), "<GrpSts>ACCP</GrpSts>", ""))).contains("The bank took file");
        assertThatThrownBy(() -> said(status(sent.message(), "<GrpSts>ACCP</GrpSts>", "")))
                .hasMessageContaining("is recorded already");
        bean(Posting.class).post(ines(), sent.batch());
        // days later
        assertThat(said(status(sent.message(), "<GrpSts>PART</GrpSts>", refused(sent.called()))))
                .contains("1 notice dealt with");
        assertThat(sent.state()).isEqualTo("REVERSED");
        assertThatThrownBy(() -> said(status("NOT-OURS", "<GrpSts>ACCP</GrpSts>", "")))
                .hasMessageContaining("never given from this account");
    }

    @Test
    void aReportRefusesAFileOrSomeOfIt() {
        Sent whole = sent(PaymentMethod.CREDIT_TRANSFER, "77.77", false, false);
        assertThat(said(status(
                        whole.message(), "<GrpSts>RJCT</GrpSts><StsRsnInf><Rsn><Cd>AM04</Cd></Rsn></StsRsnInf>", "")))
                .contains("there was not enough money");
        assertThat(bean(Filing.class).file(ines(), whole.batch()).files()).hasSize(1);
        assertThatThrownBy(() -> said(status(whole.message(), "<GrpSts>ACCP</GrpSts>", "")))
                .hasMessageContaining("recorded as refused");
        Sent some = sent(PaymentMethod.CREDIT_TRANSFER, "78.88", false, false);
        assertThatThrownBy(() -> said(status(some.message(), "<GrpSts>PART</GrpSts>", refused("CT1"))))
                .hasMessageContaining("does not carry");
        assertThat(said(status(some.message(), "<GrpSts>PART</GrpSts>", refused(some.called()))))
                .contains("but not 1 payment");
        assertThat(some.state()).isEqualTo("PREPARED");
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), some.batch())).hasMessageContaining("took no file");
    }

    @Test
    void onlyWhoRecordsTheBankReadsIt() {
        Actor priya = App.actor("priya", Role.AUDITOR);
        assertThatThrownBy(() -> bean(NoticeFiles.class).read(priya, ACCOUNT, status("x", "", "")))
                .hasMessageContaining("role");
        assertThatThrownBy(() -> said("nonsense".getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("ACH");
    }
}
