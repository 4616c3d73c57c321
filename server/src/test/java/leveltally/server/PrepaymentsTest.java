package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.printing.Answer;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.InvoiceChanging;
import leveltally.server.invoices.Offsets;
import leveltally.server.invoices.Refunds;
import leveltally.server.marks.MarkRows;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Reissuing;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What is paid ahead of its invoice: paid, matched, unmatched, sent back, undone with its payment. */
class PrepaymentsTest {
    private static final String VENDOR = "Pelorus Charts";
    private static int serial = 1;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static String reference() {
        return "PO-A" + serial++;
    }

    private static OutsideRow row(String said, String amount) {
        return new OutsideRow("FT-AHEAD-" + serial++, App.TODAY, VENDOR, said, amount);
    }

    /** A wire that paid so much ahead of an invoice. */
    private static PaymentId paid(String said, String amount) {
        BatchId batch = App.elsewhere("Wires", row(said, amount));
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static InvoiceId prepayment(PaymentId of) {
        return new InvoiceId(number(
                "SELECT i.id FROM payment p JOIN claim_line l ON l.claim_id = p.claim_id JOIN invoice i ON i.ahead_line_id = l.id"
                        + " WHERE p.id = ?",
                of.value()));
    }

    private static InvoiceId arrives(String reference, String amount) {
        return App.invoice(VENDOR, amount, App.TODAY, reference);
    }

    private static long open(InvoiceId id) {
        return number("SELECT open_minor FROM invoice WHERE id = ?", id.value());
    }

    private static long balance(String account) {
        return number(
                "SELECT COALESCE(SUM(l.debit_minor - l.credit_minor), 0) FROM journal_line l JOIN ledger_account a"
                        + " ON a.id = l.account_id WHERE a.code = ?",
                account);
    }

    private static void undo(PaymentId payment, String reference) {
        bean(Undoing.class)
                .undo(
                        ines(),
                        new Wanted(
                                List.of(new Wanted.One(payment.value(), List.of())),
                                App.TODAY,
                                Wanted.Fate.OPEN,
                                null,
                                reference),
                        "paid to the wrong account");
    }

    @Test
    void itIsMatchedWhenAnInvoiceWithItsReferenceArrives() {
        String reference = reference();
        long before = balance("1400");
        Http clerk = Http.signedIn("ines");
        String owed = clerk.get("/api/reports/aging?on=" + App.TODAY).body();
        PaymentId payment = paid("ahead " + reference, "500.00");
        InvoiceId ahead = prepayment(payment);
        assertThat(balance("1400") - before).isEqualTo(50_000);
        assertThat(open(ahead)).isEqualTo(50_000);
        // it is no payable: what was owed on a day does not know it
        assertThat(clerk.get("/api/reports/aging?on=" + App.TODAY).body()).isEqualTo(owed);
        InvoiceId other = arrives(reference(), "500.00");
        assertThat(open(other)).isEqualTo(50_000);
        InvoiceId invoice = arrives(reference.toLowerCase(), "800.00");
        assertThat(open(ahead)).isZero();
        assertThat(open(invoice)).isEqualTo(30_000);
        assertThat(balance("1400")).isEqualTo(before);
        // what is left is paid like any other
        assertThat(App.draft(invoice)).isNotNull();
        withdraw(invoice);
    }

    private static void withdraw(InvoiceId invoice) {
        BatchId batch = new BatchId(number("SELECT batch_id FROM reservation WHERE invoice_id = ?", invoice.value()));
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
    }

    @Test
    void aSmallerInvoiceLeavesTheRestForAnotherByHand() {
        String reference = reference();
        InvoiceId ahead = prepayment(paid("ahead " + reference, "500.00"));
        InvoiceId first = arrives(reference, "120.00");
        assertThat(open(first)).isZero();
        assertThat(open(ahead)).isEqualTo(38_000);
        InvoiceId second = arrives(reference(), "400.00");
        bean(Offsets.class).make(ines(), App.vendor(VENDOR), List.of(second), List.of(ahead));
        assertThat(open(second)).isEqualTo(2_000);
        assertThat(open(ahead)).isZero();
        // and it is unmatched at any time
        long offset = number("SELECT MAX(offset_id) FROM settlement WHERE invoice_id = ?", second.value());
        bean(Offsets.class).undo(ines(), offset, App.TODAY);
        assertThat(open(second)).isEqualTo(40_000);
        assertThat(open(ahead)).isEqualTo(38_000);
    }

    @Test
    void undoingItsPaymentUnmatchesItInTheSameDeed() {
        String reference = reference();
        PaymentId payment = paid("ahead " + reference, "500.00");
        InvoiceId ahead = prepayment(payment);
        InvoiceId invoice = arrives(reference, "800.00");
        long owed = balance("2000");
        long before = balance("1400") - open(ahead);
        String effect = Http.signedIn("ines")
                .post(
                        "/api/undoing/preview",
                        "{\"payments\":[{\"payment\":" + payment.value()
                                + ",\"invoices\":[]}],\"others\":{\"how\":\"OPEN\"}}")
                .body();
        assertThat(effect).contains("no longer paid ahead").contains("open again");
        undo(payment, "RET-1");
        assertThat(open(invoice)).isEqualTo(80_000);
        assertThat(open(ahead)).isZero();
        assertThat(number("SELECT cancelled_on IS NOT NULL FROM invoice WHERE id = ?", ahead.value()))
                .isOne();
        assertThat(balance("2000") - owed).isEqualTo(-50_000);
        assertThat(balance("1400")).isEqualTo(before);
    }

    @Test
    void whatTheVendorSentBackIsTakenBackFirst() {
        String reference = reference();
        PaymentId payment = paid("ahead " + reference, "90.00");
        InvoiceId ahead = prepayment(payment);
        bean(Refunds.class).receive(ines(), ahead, new Refunds.Received(App.operations(), "40.00", App.TODAY, "CR 5"));
        assertThat(open(ahead)).isEqualTo(5_000);
        assertThatThrownBy(() -> undo(payment, "RET-2")).hasMessageContaining("40.00 of the prepayment");
        bean(Refunds.class)
                .undo(
                        ines(),
                        number("SELECT id FROM credit_refund WHERE invoice_id = ?", ahead.value()),
                        App.TODAY,
                        "typed twice");
        undo(payment, "RET-2");
        assertThat(open(ahead)).isZero();
    }

    @Test
    void beforeItsDayItWaits() {
        String reference = reference();
        InvoiceId ahead = prepayment(paid("ahead " + reference + " from " + App.TODAY.plusDays(3), "75.00"));
        InvoiceId invoice = arrives(reference, "75.00");
        assertThat(open(invoice)).isEqualTo(7_500);
        assertThatThrownBy(() -> bean(Offsets.class).make(ines(), App.vendor(VENDOR), List.of(invoice), List.of(ahead)))
                .hasMessageContaining("can be used from");
        // whoever is asked to pay it anyway is told
        BatchId draft = App.draft(invoice);
        assertThat(bean(MarkRows.class).of(draft, App.TODAY, List.of()).values())
                .singleElement()
                .asString()
                .contains("75.00 was paid ahead of " + reference);
        withdraw(invoice);
        assertThat(Http.signedIn("ines").get("/api/invoices/" + invoice.value()).body())
                .contains("\"waiting\":[{\"id\":" + ahead.value());
    }

    @Test
    void itStandsForOneReferenceAndChangesWithItsPaymentOnly() {
        String reference = reference();
        InvoiceId ahead = prepayment(paid("ahead " + reference, "60.00"));
        OutsidePayments outside = bean(OutsidePayments.class);
        WayId wires = new WayId(number("SELECT id FROM way_to_pay WHERE name = 'Wires'"));
        assertThatThrownBy(() -> outside.record(
                        ines(),
                        new OutsidePayments.Recorded(
                                App.operations(), wires, "", "", List.of(row("ahead " + reference, "60.00"))),
                        false))
                .hasMessageContaining("stands already");
        InvoiceId known = arrives(reference(), "60.00");
        String itsOwn = App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(known.value())
                .query(String.class)
                .single();
        assertThatThrownBy(() -> outside.record(
                        ines(),
                        new OutsidePayments.Recorded(
                                App.operations(), wires, "", "", List.of(row("ahead " + itsOwn, "60.00"))),
                        false))
                .hasMessageContaining("is here already");
        assertThatThrownBy(() -> outside.record(
                        ines(),
                        new OutsidePayments.Recorded(App.operations(), wires, "", "", List.of(row("1400", "60.00"))),
                        false))
                .hasMessageContaining("takes what is paid ahead");
        assertThatThrownBy(() -> bean(InvoiceChanging.class).cancel(ines(), ahead, App.TODAY, "not wanted"))
                .hasMessageContaining("was paid ahead");
        InvoiceId second = prepayment(paid("ahead " + reference(), "1.00"));
        assertThatThrownBy(() ->
                        bean(Offsets.class).make(ines(), App.vendor(VENDOR), List.of(known), List.of(ahead, second)))
                .hasMessageContaining("matched by itself");
    }

    @Test
    void aLostCheckIsReissuedAndItsPrepaymentMatchedAnew() {
        String reference = reference();
        BatchId batch = App.elsewhere(
                "Check book, harbour office",
                new OutsideRow("77" + serial++, App.TODAY, VENDOR, "ahead " + reference, "210.00"));
        bean(Posting.class).post(ines(), batch);
        PaymentId old = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        InvoiceId invoice = arrives(reference, "300.00");
        InvoiceId first = prepayment(old);
        BatchId again = bean(Reissuing.class)
                .reissue(ines(), old, new Reissuing.Once(App.TODAY, null, null, null, "lost in the mail"));
        App.approve(again);
        long run = App.numbered(again);
        App.handOver(run);
        App.answer(again, App.documents(run), Answer.GOOD, "");
        bean(Posting.class).post(ines(), again);
        PaymentId made = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", again.value()));
        assertThat(open(first)).isZero();
        assertThat(number("SELECT cancelled_on IS NOT NULL FROM invoice WHERE id = ?", first.value()))
                .isOne();
        assertThat(open(prepayment(made))).isZero();
        assertThat(open(invoice)).isEqualTo(9_000);
    }
}
