package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.InvoiceChanging;
import leveltally.server.invoices.InvoiceChanging.Otherwise;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.invoices.Refunds;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What may become of a posted document: cancelled, corrected, paid otherwise; a credit refunded. */
class InvoiceChangingTest {
    private static final String BOLLARD = "Bollard Foundry";
    private static final InvoiceChanging CHANGING = bean(InvoiceChanging.class);
    private static int serial = 1;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static NewInvoice document(InvoiceKind kind, String reference, String amount) {
        Money money = Money.parse(amount, Currency.getInstance("USD"));
        return new NewInvoice(
                kind,
                App.vendor(BOLLARD),
                reference,
                LocalDate.of(2026, 11, 2),
                LocalDate.of(2026, 11, 2),
                new AccountId(number("SELECT id FROM ledger_account WHERE code = '2000'")),
                Money.zero(money.currency()),
                List.of(new NewInvoice.Line(
                        new AccountId(number("SELECT id FROM ledger_account WHERE code = '5200'")), money)));
    }

    private static long open(InvoiceId id) {
        return number("SELECT open_minor FROM invoice WHERE id = ?", id.value());
    }

    private static JsonNode page(InvoiceId id) {
        Http.Answer answer = Http.signedIn("priya").get("/api/invoices/" + id.value());
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return JsonMapper.builder().build().readTree(answer.body());
    }

    @Test
    void aCancelledDocumentIsReversedOnItsDayAndItsReferenceIsFreeAgain() {
        String reference = "IC-" + serial++;
        InvoiceId wrong = bean(Entering.class).enter(ines(), document(InvoiceKind.INVOICE, reference, "120.00"));
        assertThatThrownBy(() -> CHANGING.cancel(ines(), wrong, App.TODAY, " ")).hasMessageContaining("Say why");
        assertThatThrownBy(() -> CHANGING.cancel(ines(), wrong, LocalDate.of(2026, 11, 1), "twice"))
                .hasMessageContaining("in the ledger from Mon 2 Nov 2026");
        CHANGING.cancel(ines(), wrong, LocalDate.of(2026, 11, 5), "sent to us by mistake");
        assertThat(open(wrong)).isZero();
        assertThat(page(wrong).get("state").asString()).isEqualTo("cancelled on Thu 5 Nov 2026");
        assertThatThrownBy(() -> CHANGING.cancel(ines(), wrong, App.TODAY, "again"))
                .hasMessageContaining("is cancelled already");
        InvoiceId again = bean(Entering.class).enter(ines(), document(InvoiceKind.INVOICE, reference, "125.00"));
        assertThat(open(again)).isEqualTo(12_500);
        assertThatThrownBy(() -> bean(Entering.class).enter(ines(), document(InvoiceKind.INVOICE, reference, "125.00")))
                .hasMessageContaining("is here already");
    }

    @Test
    void aCorrectedDocumentIsLinkedBothWaysAndAllOrNothingHappens() {
        String reference = "IC-" + serial++;
        InvoiceId wrong = bean(Entering.class).enter(ines(), document(InvoiceKind.INVOICE, reference, "210.00"));
        assertThatThrownBy(() -> CHANGING.correct(
                        ines(), wrong, App.TODAY, document(InvoiceKind.INVOICE, " ", "201.00"), "digits swapped"))
                .isInstanceOf(Refusal.class);
        assertThat(open(wrong)).isEqualTo(21_000);
        InvoiceId right = CHANGING.correct(
                ines(), wrong, App.TODAY, document(InvoiceKind.INVOICE, reference, "201.00"), "digits swapped");
        assertThat(open(right)).isEqualTo(20_100);
        assertThat(page(wrong).get("correctedBy").asLong()).isEqualTo(right.value());
        assertThat(page(right).get("corrects").asLong()).isEqualTo(wrong.value());
    }

    @Test
    void whatIsPaidOrReservedIsNotCancelled() {
        InvoiceId paid = App.invoice(BOLLARD, "91.31");
        BatchId batch = App.printed(paid);
        assertThatThrownBy(() -> CHANGING.cancel(ines(), paid, App.TODAY, "wrong"))
                .hasMessageContaining("stands in the batch “Test batch”");
        bean(Posting.class).post(ines(), batch);
        assertThatThrownBy(() -> CHANGING.cancel(ines(), paid, App.TODAY, "wrong"))
                .hasMessageContaining("is settled already");
        JsonNode page = page(paid);
        assertThat(page.get("settled").get(0).get("by").asString()).startsWith("check ");
        assertThat(page.get("batches").get(0).get("state").asString()).isEqualTo("posted");
        assertThat(page.get("cancels").asString()).contains("A part of it is settled");
    }

    /** In a draft the amounts follow; once it was sent, what was approved stands. */
    @Test
    void termsChangeUntilItIsSent() {
        InvoiceId invoice = App.invoice(BOLLARD, "1000.00");
        long remitTo = number("SELECT remit_to_id FROM invoice WHERE id = ?", invoice.value());
        BatchId draft = App.draft(invoice);
        CHANGING.change(ines(), invoice, new Otherwise("2% 30, net 45", null, remitTo, false, "agreed by phone"));
        assertThat(number("SELECT amount_minor FROM claim WHERE batch_id = ?", draft.value()))
                .isEqualTo(98_000);
        JsonNode page = page(invoice);
        assertThat(page.get("discount").asString()).isEqualTo("2% until Wed 2 Dec 2026");
        assertThat(page.get("dueDate").asString()).isEqualTo("2026-12-17");
        CHANGING.change(ines(), invoice, new Otherwise("", LocalDate.of(2026, 11, 20), remitTo, false, "sooner"));
        assertThat(page(invoice).get("dueDate").asString()).isEqualTo("2026-11-20");
        assertThatThrownBy(() -> CHANGING.change(ines(), invoice, new Otherwise("", null, 1, false, "elsewhere")))
                .hasMessageContaining("no address of that vendor");
        bean(leveltally.server.approval.Sending.class).send(ines(), draft, App.version(draft));
        assertThatThrownBy(() -> CHANGING.change(ines(), invoice, new Otherwise("net 10", null, remitTo, false, "no")))
                .hasMessageContaining("was sent for approval as it is");
        assertThatThrownBy(() -> App.asRoot("UPDATE invoice SET due_date = '2026-12-01' WHERE id = " + invoice.value()))
                .hasMessageContaining("what was sent for approval stands");
        bean(Withdrawing.class).withdraw(ines(), draft, App.version(draft));
        CHANGING.cancel(ines(), invoice, App.TODAY, "only tried");
    }

    @Test
    void aCreditIsRefundedAndThatIsTakenBack() {
        InvoiceId credit = bean(Entering.class).enter(ines(), document(InvoiceKind.CREDIT, "IC-" + serial++, "80.00"));
        Refunds refunds = bean(Refunds.class);
        for (String bad : List.of("0", "80.01", "-1", "8,0")) {
            assertThatThrownBy(() -> refunds.receive(
                            ines(), credit, new Refunds.Received(App.operations(), bad, App.TODAY, "R-1")))
                    .as(bad)
                    .isInstanceOf(Refusal.class);
        }
        refunds.receive(ines(), credit, new Refunds.Received(App.operations(), "50.00", App.TODAY, "R-1"));
        assertThat(open(credit)).isEqualTo(3_000);
        JsonNode row = page(credit).get("settled").get(0);
        assertThat(row.get("words").asString()).isEqualTo("Money sent back");
        long refund = row.get("refund").asLong();
        refunds.undo(ines(), refund, App.TODAY, "another vendor's money");
        assertThat(open(credit)).isEqualTo(8_000);
        assertThatThrownBy(() -> refunds.undo(ines(), refund, App.TODAY, "again"))
                .hasMessageContaining("taken back already");
        assertThatThrownBy(() -> refunds.receive(
                        ines(),
                        App.invoice(BOLLARD, "12.12"),
                        new Refunds.Received(App.operations(), "1", App.TODAY, "R")))
                .hasMessageContaining("is an invoice");
        CHANGING.cancel(ines(), credit, App.TODAY, "only tried");
    }

    @Test
    void notesAreAddedAndStay() throws SQLException {
        InvoiceId invoice = App.invoice(BOLLARD, "13.13");
        Http maren = Http.signedIn("maren");
        assertThat(maren.post("/api/invoices/" + invoice.value() + "/note", "{\"text\":\"asked the yard\"}")
                        .body())
                .contains("asked the yard");
        assertThat(maren.post("/api/invoices/" + invoice.value() + "/note", "{\"text\":\" \"}")
                        .body())
                .contains("note-missing");
        assertThat(maren.get("/api/invoices/987654321").status()).isEqualTo(404);
        try (Connection application = App.DATABASE.application()) {
            for (String sql : List.of(
                    "DELETE FROM invoice_note",
                    "UPDATE invoice SET amount_minor = 1",
                    "UPDATE invoice SET cancelled_on = '2026-11-12' WHERE id = " + invoice.value(),
                    "UPDATE credit_refund SET amount_minor = 1")) {
                assertThatThrownBy(() -> application.createStatement().execute(sql))
                        .as(sql)
                        .isInstanceOf(SQLException.class);
            }
        }
    }

    @Test
    void whatWasPaidMeanwhileIsCancelledFromTheDayItIsOpenAgain() {
        InvoiceId invoice = App.invoice("Bollard Foundry", "88.80");
        String reference = App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(invoice.value())
                .query(String.class)
                .single();
        BatchId batch = App.elsewhere(
                "Wires",
                new OutsideRow("FT CANCEL 1", LocalDate.of(2026, 11, 4), "Bollard Foundry", reference, "88.80"));
        bean(Posting.class).post(ines(), batch);
        long payment = App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value());
        bean(Undoing.class)
                .undo(
                        ines(),
                        new Wanted(
                                List.of(new Wanted.One(payment, List.of())),
                                App.TODAY,
                                Wanted.Fate.OPEN,
                                null,
                                "RET 3"),
                        "came back");
        InvoiceChanging changing = bean(InvoiceChanging.class);
        assertThatThrownBy(() -> changing.cancel(ines(), invoice, LocalDate.of(2026, 11, 5), "not ours"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is open again from Thu 12 Nov 2026");
        changing.cancel(ines(), invoice, App.TODAY, "not ours");
    }
}
