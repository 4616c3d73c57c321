package leveltally.server.direct;

import static leveltally.server.App.TODAY;
import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static leveltally.server.App.ruth;
import static leveltally.server.App.tomas;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.company.Company;
import leveltally.core.direct.Rhythm;
import leveltally.core.direct.Schedule;
import leveltally.core.electronic.EntryClass;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.printing.Answer;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Withdrawing;
import leveltally.server.company.Companies;
import leveltally.server.electronic.Electronic;
import leveltally.server.electronic.Filing;
import leveltally.server.marks.MarkRows;
import leveltally.server.posting.Posting;
import leveltally.server.printing.TakingOut;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.VendorMerging;
import leveltally.server.voiding.Reissuing;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;

/** Payments without an invoice, by any way, typed or from a schedule: approved first, posted to their accounts, undone. */
class DirectTest {
    private static final String PAYEE = "Pelorus Charts";
    private static final DirectPayments.How SENT = new DirectPayments.How(true, "");
    private static int count = 1;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static WayId checks() {
        return new WayId(number(
                "SELECT w.id FROM way_to_pay w WHERE w.bank_account_id = ? AND w.method = 'CHECK' AND NOT w.recorded_only",
                App.operations().value()));
    }

    private static DirectRow row(String vendor, String said, String reference, String amount) {
        return new DirectRow(vendor, said, reference, amount, null, null);
    }

    private static DirectPayments.Wanted of(WayId way, DirectRow... rows) {
        return new DirectPayments.Wanted(App.operations(), way, TODAY, "", "", List.of(rows));
    }

    private static BatchId made(DirectRow... rows) {
        return bean(DirectPayments.class).make(ines(), of(checks(), rows), new DirectPayments.How(false, ""));
    }

    private static @Nullable String problem(WayId way, DirectRow... rows) {
        List<DirectSeen> seen = bean(DirectPayments.class).look(ines(), of(way, rows), 0);
        Refusal problem = seen.get(seen.size() - 1).problem();
        return problem == null ? null : problem.sentence();
    }

    private static void approve(BatchId batch) {
        if (bean(Batches.class).get(batch).state() == BatchState.DRAFT) {
            bean(Sending.class).send(ines(), batch, version(batch));
        }
        App.approve(batch);
    }

    private static PaymentId posted(BatchId batch) {
        approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(number("SELECT MIN(id) FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static List<String> entry(String which, PaymentId payment) {
        return jdbc().sql("SELECT CONCAT(a.code, ' ', l.debit_minor, ' ', l.credit_minor) FROM payment p"
                        + " JOIN journal_line l ON l.entry_id = p." + which
                        + " JOIN ledger_account a ON a.id = l.account_id WHERE p.id = ? ORDER BY l.id")
                .param(payment.value())
                .query(String.class)
                .list();
    }

    private static String fresh(String prefix) {
        return prefix + " " + count++ + "-" + System.nanoTime() % 100_000;
    }

    @Test
    void severalLinesOverAccountsAndJobsArePaidByCheckAndUndone() {
        String reference = fresh("BERTH");
        BatchId batch = made(row(PAYEE, "5100/J-7 90.00; 5200 20.00; 5300 -10.00", reference, "100.00"));
        assertThat(bean(Batches.class).get(batch).purpose().name()).isEqualTo("DIRECT");
        PaymentId payment = posted(batch);
        assertThat(entry("posted_entry_id", payment))
                .containsExactly("5100 9000 0", "5200 2000 0", "5300 0 1000", "1010 0 10000");
        assertThat(jdbc().sql("SELECT content FROM document_content d JOIN document o ON o.id = d.document_id"
                                + " WHERE o.payment_id = ? LIMIT 1")
                        .param(payment.value())
                        .query(String.class)
                        .single())
                .contains(reference);
        bean(Undoing.class).undo(ines(), Wanted.broughtBack(payment, TODAY), "paid twice");
        assertThat(entry("undone_entry_id", payment)).contains("1010 10000 0", "5100 0 9000", "5300 1000 0");
    }

    @Test
    void rejectsWhatCannotBePaidSo() {
        assertThat(problem(checks(), row("Nobody Known", "5100", "R", "1.00")))
                .contains("is called “Nobody Known”")
                .contains("paid once");
        assertThat(problem(checks(), row(PAYEE, "5100", "", "1.00"))).contains("what the payee shall read");
        assertThat(problem(checks(), row(PAYEE, "5100", "R", ""))).contains("above zero");
        assertThat(problem(checks(), row(PAYEE, "5100", "R", "-1.00"))).contains("above zero");
        assertThat(problem(checks(), row(PAYEE, "", "R", "1.00"))).contains("Name the accounts");
        assertThat(problem(checks(), row(PAYEE, "1010", "R", "1.00"))).contains("account of cash");
        assertThat(problem(checks(), row(PAYEE, "5100 1.00; 5200 1.00", "R", "3.00")))
                .contains("The shares come to 2.00");
        assertThat(problem(checks(), row(PAYEE, "5100/A-JOB-THAT-IS-FAR-TOO-LONG", "R", "1.00")))
                .contains("at most 20 characters");
        assertThat(problem(checks(), row("Bollard Foundry", "5100", "R", "1.00")))
                .isNull();
        // a vendor may be owed in several
        assertThat(bean(DirectPayments.class)
                        .look(ines(), of(checks(), row("Île de Gorse Pêcheries", "5100", "R", "1.00")), 0)
                        .get(0)
                        .says())
                .contains("as a rule it is paid in EUR");
        String held = jdbc().sql("SELECT name FROM vendor WHERE hold_reason IS NOT NULL AND currency = 'USD' LIMIT 1")
                .query(String.class)
                .single();
        assertThat(problem(checks(), row(held, "5100", "R", "1.00"))).contains("is held");
        // the same twice is said, not refused: it may be meant
        List<DirectSeen> twice = bean(DirectPayments.class)
                .look(ines(), of(checks(), row(PAYEE, "5100", "R", "1.00"), row(PAYEE, "5200", "r", "1.00")), 0);
        assertThat(twice.get(1).problem()).isNull();
        assertThat(twice.get(1).says()).isEqualTo("the same as row 1");
        assertThatThrownBy(() -> made(row(PAYEE, "5100", "R", "1.00"), row(PAYEE, "5100", "", "1.00")))
                .hasMessageStartingWith("Row 2:")
                .hasMessageEndingWith("Nothing was made.");
    }

    @Test
    void whatIsPaidAheadByCheckIsMatchedWithItsInvoice() {
        String order = "PO-" + System.nanoTime() % 1_000_000;
        BatchId batch = made(row(PAYEE, "ahead " + order, "", "250.00"));
        posted(batch);
        assertThat(number("SELECT open_minor FROM invoice WHERE kind = 'PREPAYMENT' AND reference = ?", order))
                .isEqualTo(25_000);
        var invoice = App.invoice(PAYEE, "400.00", TODAY, order);
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isEqualTo(15_000);
        assertThat(problem(checks(), row(PAYEE, "ahead " + order, "", "1.00"))).contains("is here already");
    }

    @Test
    void itGoesByFileWhereTheBankDetailsReach() {
        WayId way = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.CHECK, Electronic.account());
        assertThat(problem(way, row(PAYEE, "5100", "R", "1.00"))).contains("cannot be paid by ACH: no bank details");
        // paid by check as a rule, and by file this once: its details reach, and whoever types it is told
        assertThat(bean(DirectPayments.class)
                        .look(ines(), of(way, row(vendor, "5100", "LEASE 11", "77.00")), 0)
                        .get(0)
                        .says())
                .isEqualTo("as a rule it is paid by check");
        BatchId batch =
                bean(DirectPayments.class).make(ines(), of(way, row(vendor, "5100", "LEASE 11", "77.00")), SENT);
        App.approve(batch);
        bean(Filing.class).file(ines(), batch);
        bean(BankAnswers.class).accepted(ines(), Electronic.file(batch), "");
        bean(Posting.class).post(ines(), batch);
        PaymentId payment = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        assertThat(entry("posted_entry_id", payment)).containsExactly("5100 7700 0", "1010 0 7700");
    }

    /** The answer was lost, and the same is sent again, or twice at once. */
    @Test
    void whatWasTypedIsMadeOnce() throws Exception {
        DirectPayments.How lost = new DirectPayments.How(false, fresh("typing"));
        DirectPayments.Wanted wanted = of(checks(), row(PAYEE, "5100", fresh("TUG"), "18.00"));
        BatchId batch = bean(DirectPayments.class).make(ines(), wanted, lost);
        assertThatThrownBy(() ->
                        bean(DirectPayments.class).make(ines(), wanted, new DirectPayments.How(true, lost.typedAs())))
                .hasMessageContaining("made already, as the batch “Without an invoice");
        // another's typing of that name is another
        BatchId other = bean(DirectPayments.class).make(tomas(), wanted, lost);
        DirectPayments.How pressed = new DirectPayments.How(false, fresh("typing"));
        Callable<String> press = () -> {
            try {
                bean(DirectPayments.class).make(ines(), wanted, pressed);
                return "made";
            } catch (Refusal refused) {
                return refused.code();
            }
        };
        var both = Executors.newFixedThreadPool(2);
        try {
            assertThat(both.invokeAll(List.of(press, press)).stream().map(DirectTest::answer))
                    .containsExactlyInAnyOrder("made", "made-already");
        } finally {
            both.shutdown();
        }
        assertThat(number("SELECT COUNT(*) FROM batch WHERE typed_as = ?", pressed.typedAs()))
                .isEqualTo(1);
        for (BatchId made : List.of(
                batch, other, new BatchId(number("SELECT id FROM batch WHERE typed_as = ?", pressed.typedAs())))) {
            bean(Withdrawing.class).withdraw(ines(), made, version(made));
        }
    }

    private static String answer(Future<String> of) {
        try {
            return of.get();
        } catch (Exception failed) {
            throw new IllegalStateException(failed);
        }
    }

    /** Two batches of it would both reach the bank before the ledger refused the second. */
    @Test
    void oneReferenceIsPaidAheadOfOnceEvenBeforeItIsPosted() throws Exception {
        String order = fresh("PO");
        BatchId first = made(row(PAYEE, "ahead " + order, "", "40.00"));
        assertThat(problem(checks(), row(PAYEE, "ahead " + order.toLowerCase(), "", "41.00")))
                .contains("is on its way in the batch “Without an invoice");
        // its own draft is typed anew
        bean(DirectPayments.class)
                .makeAnew(ines(), first, version(first), of(checks(), row(PAYEE, "ahead " + order, "", "42.00")));
        assertThatThrownBy(
                        () -> jdbc().sql("INSERT INTO claim_line (id, claim_id, kind, reference, currency, gross_minor,"
                                        + " discount_minor, credit_minor, cash_minor, part, version, hidden, own_check)"
                                        + " SELECT id + 500000000000, claim_id, kind, reference, currency, gross_minor, 0, 0, cash_minor,"
                                        + " FALSE, 0, FALSE, FALSE FROM claim_line WHERE claim_id IN"
                                        + " (SELECT id FROM claim WHERE batch_id = ?)")
                                .param(first.value())
                                .update())
                .hasMessageContaining("paid ahead of this reference already");
        bean(Withdrawing.class).withdraw(ines(), first, version(first));
        // from two at once
        Callable<String> type = () -> {
            try {
                made(row(PAYEE, "ahead " + order, "", "43.00"));
                return "made";
            } catch (Refusal refused) {
                return "refused";
            }
        };
        var both = Executors.newFixedThreadPool(2);
        try {
            assertThat(both.invokeAll(List.of(type, type)).stream().map(DirectTest::answer))
                    .containsExactlyInAnyOrder("made", "refused");
        } finally {
            both.shutdown();
        }
        BatchId made = new BatchId(number(
                "SELECT MAX(c.batch_id) FROM claim c JOIN claim_line l ON l.claim_id = c.id WHERE l.reference = ?",
                order));
        bean(Withdrawing.class).withdraw(ines(), made, version(made));
    }

    /** What left the bank is posted, whatever vendors became one meanwhile. */
    @Test
    void twoThatBecameOneWerePaidAheadOfOneReferenceEach() {
        String gone = Electronic.vendor(PaymentMethod.CHECK, null);
        String kept = Electronic.vendor(PaymentMethod.CHECK, null);
        String order = fresh("PO");
        BatchId late = made(row(gone, "ahead " + order, "", "30.00"));
        posted(made(row(kept, "ahead " + order, "", "31.00")));
        approve(late);
        bean(VendorMerging.class).merge(ruth(), App.vendor(gone), App.vendor(kept), "one letterhead");
        posted(late);
        assertThat(jdbc().sql("SELECT CONCAT(reference, ' ', open_minor) FROM invoice WHERE vendor_id = ? ORDER BY id")
                        .param(App.vendor(kept).value())
                        .query(String.class)
                        .list())
                .containsExactly(order + " 3100", order + " (2) 3000");
    }

    private static long open(InvoiceId invoice) {
        return number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
    }

    /** From the order to the bank's file, to its invoice, and back again when the payee's bank has no such account. */
    @Test
    void whatIsPaidAheadByFileIsMatchedAndEndsWhenTheBankSendsItBack() {
        WayId way = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        String order = fresh("PO");
        BatchId batch =
                bean(DirectPayments.class).make(ines(), of(way, row(vendor, "ahead " + order, "", "250.00")), SENT);
        App.approve(batch);
        bean(Filing.class).file(ines(), batch);
        assertThat(number("SELECT COUNT(*) FROM invoice WHERE reference = ?", order))
                .isZero();
        bean(BankAnswers.class).accepted(ines(), Electronic.file(batch), "");
        bean(Posting.class).post(ines(), batch);
        PaymentId payment = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        assertThat(entry("posted_entry_id", payment)).containsExactly("1400 25000 0", "1010 0 25000");
        InvoiceId ahead = new InvoiceId(number("SELECT id FROM invoice WHERE reference = ?", order));
        assertThat(open(ahead)).isEqualTo(25_000);
        InvoiceId invoice = App.invoice(vendor, "400.00", TODAY, order);
        assertThat(open(ahead)).isZero();
        assertThat(open(invoice)).isEqualTo(15_000);
        bean(Undoing.class)
                .undo(
                        ines(),
                        Wanted.sentBack(
                                Map.of(payment, new Wanted.SentBack("R03 990044100000001", "no such account")), TODAY),
                        "the bank sent it back");
        assertThat(open(invoice)).isEqualTo(40_000);
        assertThat(open(ahead)).isZero();
        assertThat(number("SELECT cancelled_on IS NOT NULL FROM invoice WHERE id = ?", ahead.value()))
                .isEqualTo(1);
        assertThat(entry("undone_entry_id", payment)).containsExactly("1010 25000 0", "1400 0 25000");
    }

    @Test
    void whoIsPaidOnceWaitsForASecondPersonWhereTheCompanyAsksForIt() {
        String name = fresh("Wreck Diver");
        OneTimePayees.Entered entered = bean(OneTimePayees.class)
                .enter(
                        ines(),
                        new OneTimePayees.Wanted(
                                name, List.of("3 Slip Lane", "Skerrow"), "40011", App.operations(), checks(), null));
        assertThat(entered.waits()).isTrue();
        BatchId batch = made(row(entered.number(), "5100", "SALVAGE", "60.00"));
        assertThatThrownBy(() -> bean(Sending.class).send(ines(), batch, version(batch)))
                .hasMessageContaining("waits for a second person");
        Company company = bean(Companies.class).company();
        byTwo(company, false);
        try {
            // the approver is the second person then, and is told that nothing else proves the payee
            bean(Sending.class).send(ines(), batch, version(batch));
            assertThat(bean(MarkRows.class).of(batch, TODAY, List.of()).values())
                    .singleElement()
                    .satisfies(marks -> assertThat(marks).extracting(Mark::kind).contains(MarkKind.ONE_TIME));
            App.approve(batch);
        } finally {
            byTwo(company, true);
        }
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        // bank details take two in any case
        WayId ach = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.PPD)));
        BankDetails bank = Electronic.account();
        assertThatThrownBy(() -> bean(OneTimePayees.class)
                        .enter(
                                ines(),
                                new OneTimePayees.Wanted(
                                        fresh("Diver"), List.of("3 Slip Lane"), "", App.operations(), ach, null)))
                .hasMessageContaining("needs an account");
        OneTimePayees.Entered byFile = bean(OneTimePayees.class)
                .enter(
                        ines(),
                        new OneTimePayees.Wanted(
                                fresh("Diver"), List.of("3 Slip Lane"), "", App.operations(), ach, bank));
        assertThat(problem(ach, row(byFile.number(), "5100", "R", "1.00"))).contains("bank details not confirmed");
        bean(ChangeViews.class).waiting().stream()
                .filter(change -> change.vendor() == byFile.vendor())
                .forEach(change -> bean(VendorChanges.class).confirm(ruth(), change.id(), bank));
        assertThat(problem(ach, row(byFile.number(), "5100", "R", "1.00"))).isNull();
    }

    private static void byTwo(Company company, boolean byTwo) {
        bean(Companies.class)
                .set(
                        ruth(),
                        new Company(
                                company.name(),
                                company.address(),
                                company.graceDays(),
                                company.staleDays(),
                                company.zone(),
                                company.year(),
                                byTwo),
                        bean(Companies.class).seen().version());
    }

    @Test
    void theSameExpenseTwiceIsMarked() {
        String reference = fresh("TOW");
        posted(made(row(PAYEE, "5100", reference, "812.00")));
        BatchId again = made(row(PAYEE, "5200", reference.toLowerCase(), "812.00"));
        List<Mark> marks = bean(MarkRows.class)
                .of(again, TODAY, List.of())
                .values()
                .iterator()
                .next();
        assertThat(marks).extracting(Mark::kind).contains(MarkKind.DUPLICATE);
        assertThat(marks.get(0).reason()).contains("may be a duplicate of " + reference);
        bean(Withdrawing.class).withdraw(ines(), again, version(again));
        // an invoice for what was paid without one is found as well, and the other way round
        var invoice = App.invoice(PAYEE, "812.00", TODAY, reference);
        BatchId late = App.draft(invoice);
        assertThat(bean(MarkRows.class)
                        .of(late, TODAY, List.of())
                        .values()
                        .iterator()
                        .next())
                .extracting(Mark::kind)
                .contains(MarkKind.DUPLICATE);
        bean(Withdrawing.class).withdraw(ines(), late, version(late));
    }

    @Test
    void theDraftIsTypedAnewUntilItIsSent() {
        BatchId batch = made(row(PAYEE, "5100", "A", "10.00"), row("Bollard Foundry", "5200", "B", "20.00"));
        List<DirectRow> rows = bean(DirectPayments.class).rows(batch);
        assertThat(rows).extracting(DirectRow::reference).containsExactlyInAnyOrder("A", "B");
        bean(DirectPayments.class)
                .makeAnew(ines(), batch, version(batch), of(checks(), row(PAYEE, "5300", "C", "5.00")));
        assertThat(bean(DirectPayments.class).rows(batch))
                .singleElement()
                .extracting(DirectRow::said, DirectRow::reference, DirectRow::amount)
                .containsExactly("5300", "C", "5.00");
        bean(Sending.class).send(ines(), batch, version(batch));
        assertThatThrownBy(() -> bean(DirectPayments.class)
                        .makeAnew(ines(), batch, version(batch), of(checks(), row(PAYEE, "5300", "C", "6.00"))))
                .hasMessageContaining("Have it sent back first");
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
    }

    @Test
    void singlePaymentsAreStruckOrTakenOutAndTheOthersGoOn() {
        BatchId batch = made(
                row(PAYEE, "5100", "ONE", "11.00"),
                row("Bollard Foundry", "5200", "TWO", "12.00"),
                row("Ebb Tide Linen", "5300", "THREE", "13.00"));
        bean(Sending.class).send(ines(), batch, version(batch));
        bean(Approvals.class).strike(App.maren(), batch, Set.of(claim(batch, "ONE")), "not agreed");
        App.approve(batch);
        bean(TakingOut.class).takeOut(ines(), batch, Set.of(claim(batch, "TWO")), false, "paid at the quay");
        long run = App.numbered(batch);
        App.handOver(run);
        assertThat(App.documents(run)).hasSize(1);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        assertThat(number("SELECT SUM(amount_minor) FROM payment WHERE batch_id = ?", batch.value()))
                .isEqualTo(1_300);
    }

    private static ClaimId claim(BatchId batch, String reference) {
        return new ClaimId(number(
                "SELECT c.id FROM claim c JOIN claim_line l ON l.claim_id = c.id WHERE c.batch_id = ? AND l.reference = ?",
                batch.value(),
                reference));
    }

    @Test
    void aDirectPaymentIsReissuedWithItsLines() {
        PaymentId lost = posted(made(row(PAYEE, "5100/J-9 30.00; 5200 3.00", fresh("LOST"), "33.00")));
        BatchId again = bean(Reissuing.class)
                .reissue(ines(), lost, new Reissuing.Once(TODAY, null, null, null, "never arrived"));
        PaymentId paid = posted(again);
        assertThat(entry("posted_entry_id", paid)).containsExactly("5100 3000 0", "5200 300 0", "1010 0 3300");
        assertThat(entry("undone_entry_id", lost)).contains("1010 3300 0");
    }

    private static Schedules.Wanted wanted(String first, Rhythm rhythm) {
        return new Schedules.Wanted(
                App.operations(),
                checks(),
                App.vendor(PAYEE),
                new Schedule(
                        fresh("Quay"),
                        "QUAY {month}",
                        "5100",
                        Money.parse("900.00", Currency.getInstance("USD")),
                        rhythm,
                        LocalDate.parse(first),
                        null));
    }

    private static long schedule(String first, Rhythm rhythm) {
        return bean(Schedules.class).begin(tomas(), wanted(first, rhythm));
    }

    /** Not only who changed it last: the one before may have said how much. */
    @Test
    void whoeverEverChangedAScheduleHasAHandInWhatItPays() {
        long rent = schedule("2026-11-04", Rhythm.MONTHLY);
        bean(Schedules.class).change(ruth(), rent, 0, wanted("2026-11-04", Rhythm.MONTHLY));
        BatchId batch = made(day(rent, "2026-11-04"));
        assertThat(bean(Batches.class).hands(batch)).contains(tomas().person(), ruth().person());
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        bean(Schedules.class).end(tomas(), rent, 1, "tried");
    }

    /** Its answer was lost, and it is begun again: two of them would propose the same rent twice. */
    @Test
    void aScheduleOfANameGoesOnOnce() {
        Schedules schedules = bean(Schedules.class);
        Schedules.Wanted rent = wanted("2026-12-04", Rhythm.MONTHLY);
        long begun = schedules.begin(tomas(), rent);
        assertThatThrownBy(() -> schedules.begin(tomas(), rent)).hasMessageContaining("goes on already");
        long other = schedule("2026-12-05", Rhythm.MONTHLY);
        assertThatThrownBy(() -> schedules.change(tomas(), other, 0, rent)).hasMessageContaining("goes on already");
        assertThatThrownBy(() -> schedules.proposeAgain(tomas(), begun, LocalDate.MAX))
                .hasMessageContaining("has no payment on");
        schedules.end(tomas(), begun, 0, "another hall");
        long anew = schedules.begin(tomas(), rent);
        schedules.end(tomas(), anew, 0, "tried");
        schedules.end(tomas(), other, 0, "tried");
    }

    private static List<LocalDate> waiting(long schedule) {
        return bean(ScheduleViews.class).proposed(TODAY.plusDays(30)).stream()
                .filter(one -> one.schedule() == schedule)
                .map(ScheduleViews.Proposed::dueOn)
                .toList();
    }

    private static DirectRow day(long schedule, String dueOn) {
        return new DirectRow(
                PAYEE, "5100", "QUAY " + dueOn.substring(0, 7), "900.00", schedule, LocalDate.parse(dueOn));
    }

    @Test
    void eachDayOfAScheduleIsPaidOnceOrPassedOver() {
        long rent = schedule("2026-10-01", Rhythm.MONTHLY);
        assertThat(waiting(rent))
                .containsExactly(LocalDate.of(2026, 10, 1), LocalDate.of(2026, 11, 1), LocalDate.of(2026, 12, 1));
        bean(Schedules.class).passOver(ines(), rent, LocalDate.of(2026, 10, 1), "paid by the harbour office");
        BatchId batch = made(day(rent, "2026-11-01"));
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 12, 1));
        // whoever keeps the schedule has a hand in what it pays
        assertThat(bean(Batches.class).hands(batch)).contains(tomas().person());
        assertThat(problem(checks(), day(rent, "2026-11-01"))).contains("is paid already, in the batch");
        assertThat(problem(checks(), day(rent, "2026-10-01"))).contains("passed over");
        assertThatThrownBy(() -> made(new DirectRow(
                        "Bollard Foundry", "5100", "QUAY 2026-12", "900.00", rent, LocalDate.parse("2026-12-01"))))
                .hasMessageContaining("does not pay");
        assertThatThrownBy(() -> made(day(rent, "2026-11-02"))).hasMessageContaining("has no payment on");
        assertThatThrownBy(() -> bean(Schedules.class).change(ruth(), rent, 0, wanted("2026-10-02", Rhythm.MONTHLY)))
                .hasMessageContaining("due on Sun 1 Nov 2026 is paid or passed over");
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 11, 1), LocalDate.of(2026, 12, 1));
        PaymentId paid = posted(made(day(rent, "2026-11-01")));
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 12, 1));
        bean(Undoing.class).undo(ines(), Wanted.broughtBack(paid, TODAY), "lost in the mail");
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 11, 1), LocalDate.of(2026, 12, 1));
        // what is paid once more pays its day
        PaymentId lost = posted(made(day(rent, "2026-11-01")));
        BatchId again = bean(Reissuing.class)
                .reissue(ines(), lost, new Reissuing.Once(TODAY, null, null, null, "never arrived"));
        PaymentId second = posted(again);
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 12, 1));
        bean(Undoing.class).undo(ines(), Wanted.broughtBack(second, TODAY), "the hall is closed");
        assertThat(waiting(rent)).containsExactly(LocalDate.of(2026, 11, 1), LocalDate.of(2026, 12, 1));
        bean(Schedules.class).end(ines(), rent, 0, "the lease ended");
        assertThat(waiting(rent)).isEmpty();
        assertThatThrownBy(() -> made(day(rent, "2026-12-01"))).hasMessageContaining("ended on");
    }

    @Test
    void ofTwoWhoTakeTheSameDayOneIsRefused() throws Exception {
        long rent = schedule("2026-11-05", Rhythm.MONTHLY);
        var pool = Executors.newFixedThreadPool(2);
        try {
            Callable<Boolean> take = () -> {
                try {
                    made(day(rent, "2026-11-05"));
                    return true;
                } catch (Refusal refused) {
                    assertThat(refused.sentence()).contains("was taken meanwhile");
                    return false;
                }
            };
            List<Boolean> took = new ArrayList<>();
            for (Future<Boolean> one : pool.invokeAll(List.of(take, take))) {
                took.add(one.get());
            }
            assertThat(took).containsExactlyInAnyOrder(true, false);
        } finally {
            pool.shutdown();
        }
        long claim = number("SELECT claim_id FROM direct_entry WHERE schedule_id = ?", rent);
        BatchId other = made(row(PAYEE, "5100", "OTHER", "900.00"));
        long free = number("SELECT id FROM claim WHERE batch_id = ?", other.value());
        App.asRoot("DELETE FROM leveltally.direct_entry WHERE claim_id = " + free);
        // not even by hand
        assertThatThrownBy(() -> jdbc().sql(
                                "INSERT INTO direct_entry (claim_id, said, schedule_id, due_on) VALUES (?, '5100', ?, '2026-11-05')")
                        .params(free, rent)
                        .update())
                .isInstanceOf(DataAccessException.class)
                .hasMessageContaining("paid or passed over already");
        for (long of : List.of(claim, free)) {
            BatchId batch = new BatchId(number("SELECT batch_id FROM claim WHERE id = ?", of));
            bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        }
    }
}
