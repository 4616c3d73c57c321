package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.printing.Answer;
import leveltally.server.approval.Approvals;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Reissuing;
import leveltally.server.voiding.Stops;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** A check paid once more: stopped at once, approved anew, voided and posted in one. */
class ReissueTest {
    private static final LocalDate ON = App.CHECK_DATE;
    private static int cents = 11;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static Actor then(Actor who) {
        return new Actor(who.person(), who.name(), who.roles(), ON, Instant.now(), who.from());
    }

    private static String amount(int whole) {
        return whole + "." + cents++;
    }

    private static PaymentId paid(InvoiceId... invoices) {
        BatchId batch = App.printed(invoices);
        bean(Posting.class).post(ines(), batch);
        return payment(batch);
    }

    private static PaymentId payment(BatchId batch) {
        return new PaymentId(number("SELECT MIN(id) FROM payment WHERE batch_id = ? AND standing", batch.value()));
    }

    private static String state(PaymentId payment) {
        return App.jdbc()
                .sql("SELECT state FROM payment WHERE id = ?")
                .param(payment.value())
                .query(String.class)
                .single();
    }

    private static BatchId reissued(PaymentId payment, LocalDate on) {
        return bean(Reissuing.class)
                .reissue(then(ines()), payment, new Reissuing.Once(on, null, null, null, "lost in the mail"));
    }

    private static void printed(BatchId batch) {
        App.approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
    }

    /** Its discount would be lost by the new day; a kept line keeps it. */
    @Test
    void theNewCheckKeepsAmountAndDiscountAndTheOldOneIsVoidedWithIt() {
        InvoiceId invoice = App.invoice("Blackwater Dry Dock", "1250.00", LocalDate.of(2026, 11, 6));
        PaymentId old = paid(invoice);
        long amount = number("SELECT amount_minor FROM payment WHERE id = ?", old.value());
        assertThat(amount).isLessThan(125_000);
        LocalDate later = ON.plusDays(20);
        BatchId batch = reissued(old, later);
        assertThat(state(old)).isEqualTo("STOPPED");
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isZero();
        // while it is on its way the old one is neither voided nor let go
        assertThatThrownBy(() -> bean(Undoing.class).undo(then(ines()), Wanted.broughtBack(old, ON), "void it"))
                .hasMessageContaining("is being paid once more in the batch “Reissue of check");
        assertThatThrownBy(() -> bean(Stops.class).askToLift(then(ines()), old, "found"))
                .hasMessageContaining("is being paid once more");
        assertThatThrownBy(() -> reissued(old, later)).hasMessageContaining("is being paid once more");
        assertThatThrownBy(() -> bean(Drafting.class).clear(ines(), batch, App.version(batch)))
                .hasMessageContaining("with its lines as they were");
        printed(batch);
        assertThat(state(old)).isEqualTo("STOPPED");
        bean(Posting.class).post(ines(), batch);
        PaymentId made = payment(batch);
        assertThat(state(old) + " " + state(made)).isEqualTo("VOIDED OUTSTANDING");
        assertThat(number("SELECT amount_minor FROM payment WHERE id = ?", made.value()))
                .isEqualTo(amount);
        assertThat(number("SELECT replaces_id FROM payment WHERE id = ?", made.value()))
                .isEqualTo(old.value());
        assertThat(number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value()))
                .isZero();
        assertThat(number("SELECT discount_taken_minor FROM invoice WHERE id = ?", invoice.value()))
                .isEqualTo(125_000 - amount);
        // reported to the bank as a void and an issue, to the revenue office as one payment of its first year
        assertThat(App.jdbc()
                        .sql("SELECT e.kind FROM bank_event e JOIN check_number n ON n.id = e.check_number_id"
                                + " WHERE n.payment_id IN (?, ?) ORDER BY e.id")
                        .params(old.value(), made.value())
                        .query(String.class)
                        .list())
                .containsExactly("ISSUE", "VOID", "ISSUE");
        assertThat(number("SELECT reported_year FROM payment WHERE id = ?", made.value()))
                .isEqualTo(ON.getYear());

        // and once more: the chain goes on
        Actor muchLater = new Actor(ines().person(), "ines", ines().roles(), later, Instant.now(), ines().from());
        BatchId third = bean(Reissuing.class)
                .reissue(muchLater, made, new Reissuing.Once(later.plusDays(1), null, null, null, "lost again"));
        printed(third);
        bean(Posting.class).post(ines(), third);
        assertThat(state(old) + state(made) + state(payment(third))).isEqualTo("VOIDEDVOIDEDOUTSTANDING");
        String slip = Http.signedIn("priya")
                .get("/api/checks/" + number("SELECT id FROM check_number WHERE live_payment_id = ?", made.value()))
                .body();
        assertThat(slip).contains("\"chain\":[{", "outstanding");
    }

    @Test
    void approvalRefusedLeavesTheCheckStoppedAndTheChoiceOpen() {
        PaymentId old = paid(App.invoice("Pelorus Charts", amount(41)));
        BatchId batch = reissued(old, ON);
        bean(Approvals.class).sendBack(App.maren(), batch, "ask the vendor first", Map.of());
        assertThat(state(old)).isEqualTo("STOPPED");
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        long asked = bean(Stops.class).askToLift(then(ines()), old, "the vendor found it");
        bean(Questions.class).agree(then(App.aldo()), asked);
        assertThat(state(old)).isEqualTo("OUTSTANDING");
        // taken out after its number was taken, it replaces nothing, and another one can
        BatchId second = reissued(old, ON);
        App.approve(second);
        App.numbered(second);
        bean(leveltally.server.printing.TakingOut.class)
                .takeOut(
                        ines(),
                        second,
                        java.util.Set.of(bean(leveltally.server.batches.ClaimRows.class)
                                .of(second)
                                .get(0)
                                .id()),
                        false,
                        "printed at the other site");
        BatchId third = reissued(old, ON);
        printed(third);
        bean(Posting.class).post(ines(), third);
        assertThat(state(old)).isEqualTo("VOIDED");
        assertThat(bean(Batches.class).get(second).state().words()).isEqualTo("withdrawn");
    }

    /** As it was on the day, marked, whatever became of the check; one or many; by mail to whom an address is kept for. */
    @Test
    void aStubIsGivenAgain() throws Exception {
        PaymentId first = paid(App.invoice("Pelorus Charts", "61.61"));
        PaymentId second = paid(App.invoice("Bollard Foundry", "62.62"));
        bean(Undoing.class).undo(then(ines()), Wanted.broughtBack(second, ON), "only tried");
        Http ines = Http.signedIn("ines");
        byte[] pdf = bean(leveltally.server.printing.RunPages.class).stubs(List.of(first, second));
        assertThat(ines.get(
                                "/api/stubs/pdf?payments=" + first.value() + "&payments=" + second.value(),
                                "application/pdf")
                        .body())
                .startsWith("%PDF");
        try (var document = org.apache.pdfbox.Loader.loadPDF(pdf)) {
            assertThat(new org.apache.pdfbox.text.PDFTextStripper().getText(document))
                    .contains("NOT A CHECK", "Pelorus Charts", "61.61", "Bollard Foundry", "62.62");
        }
        assertThat(ines.get("/api/stubs/pdf?payments=999999999", "application/pdf")
                        .status())
                .isEqualTo(404);
        String mailed = ines.post("/api/stubs/mail", "{\"payments\":[" + first.value() + "," + second.value() + "]}")
                .body();
        assertThat(mailed).contains("Bollard Foundry");
    }

    /** The database is gone between the void and the new posting: neither is there, and the next press does both. */
    @Test
    void aBreakInTheMiddleOfItsPostingLeavesNothingHalf() throws Exception {
        PaymentId old = paid(App.invoice("Pelorus Charts", amount(51)));
        BatchId batch = reissued(old, ON);
        printed(batch);
        long entries = number("SELECT COUNT(*) FROM journal_entry");
        App.asRoot("CREATE TRIGGER slow_issue BEFORE INSERT ON bank_event FOR EACH ROW"
                + " SET @slept = IF(NEW.kind = 'ISSUE', SLEEP(2), 0)");
        try {
            CompletableFuture<Posting.Outcome> posting =
                    CompletableFuture.supplyAsync(() -> bean(Posting.class).post(ines(), batch));
            try (Connection root = App.DATABASE.root("leveltally")) {
                String asleep = "SELECT 1 FROM information_schema.processlist WHERE state = 'User sleep'";
                while (!root.createStatement().executeQuery(asleep).next()) {
                    assertThat(posting).isNotDone();
                    Thread.sleep(20);
                }
            }
            App.DATABASE.crash();
            assertThatThrownBy(posting::join).isNotNull();
        } finally {
            App.asRoot("DROP TRIGGER slow_issue");
        }
        assertThat(state(old)).isEqualTo("STOPPED");
        assertThat(number("SELECT COUNT(*) FROM journal_entry")).isEqualTo(entries);
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 0));
        assertThat(state(old)).isEqualTo("VOIDED");
    }

    @Test
    void rejectsAnotherVendorsAddressAndAnInvoiceInAnotherBatch() {
        InvoiceId invoice = App.invoice("Bollard Foundry", "400.00");
        BatchId part = App.draft(invoice);
        bean(Drafting.class).pay(ines(), part, App.version(part), invoice, "150.00");
        bean(leveltally.server.approval.Sending.class).send(ines(), part, App.version(part));
        printed(part);
        bean(Posting.class).post(ines(), part);
        PaymentId old = payment(part);
        long foreign = number("SELECT MIN(r.id) FROM remit_to r JOIN vendor v ON v.id = r.vendor_id"
                + " WHERE v.name = 'Pelorus Charts' AND r.in_force");
        assertThatThrownBy(() -> bean(Reissuing.class)
                        .reissue(then(ines()), old, new Reissuing.Once(ON, null, foreign, null, "moved")))
                .hasMessageContaining("no address of that vendor");
        assertThat(state(old)).isEqualTo("OUTSTANDING");
        BatchId rest = App.draft(invoice);
        assertThatThrownBy(() -> reissued(old, ON)).hasMessageContaining("stands in the batch “Test batch”");
        bean(Withdrawing.class).withdraw(ines(), rest, App.version(rest));
        assertThatThrownBy(() -> reissued(old, ON.minusDays(3))).isInstanceOf(leveltally.core.Refusal.class);
        assertThat(List.of(state(old))).containsExactly("OUTSTANDING");
    }
}
