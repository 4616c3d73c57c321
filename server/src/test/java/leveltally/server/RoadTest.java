package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.maren;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.printing.Answer;
import leveltally.core.proof.LevelStrip;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Holds;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Levels;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The whole road through the services, and the mistakes on it; every test ends with a clean proof. */
class RoadTest {
    private static final String OAKUM = "Oakum & Pitch Chandlery";
    private static final String BOLLARD = "Bollard Foundry";

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static long open(InvoiceId invoice) {
        return App.number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
    }

    private static long checkOf(BatchId batch) {
        return App.number(
                "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
    }

    @Test
    void fromInvoicesToTheBankAndBackAgain() {
        // 2% until 12 Nov: lapsed on the check date, so it is paid in full
        InvoiceId first = App.invoice(OAKUM, "1250.00");
        InvoiceId second = App.invoice(BOLLARD, "300.00");
        BatchId batch = App.printed(first, second);
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(2, 2, 0));
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.POSTED);
        assertThat(open(first)).isZero();
        bean(BankFiles.class).make(ines(), App.operations());
        LevelStrip strip = bean(Levels.class).of(batch);
        assertThat(strip.tallies())
                .allSatisfy(tally -> assertThat(tally.amount()).hasToString("1,550.00"));
        assertThat(strip.isLevel()).isTrue();
    }

    @Test
    void aVoidBringsTheInvoiceBackAndKeepsTheNumber() {
        InvoiceId invoice = App.invoice(BOLLARD, "410.00");
        BatchId batch = App.printed(invoice);
        bean(Posting.class).post(ines(), batch);
        long check = checkOf(batch);
        var later = new leveltally.core.people.Actor(
                ines().person(), "ines", ines().roles(), App.CHECK_DATE, java.time.Instant.now(), "test");
        App.voidCheck(later, new CheckNumberId(check), App.CHECK_DATE, "lost in the mail");
        assertThat(open(invoice)).isEqualTo(41_000);
        assertThat(App.number("SELECT COUNT(*) FROM check_register WHERE id = ? AND state = 'VOIDED'", check))
                .isOne();
        assertThatThrownBy(() -> App.voidCheck(later, new CheckNumberId(check), App.CHECK_DATE, "again"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is voided");
    }

    @Test
    void aSecondPostChangesNothing() {
        BatchId batch = App.printed(App.invoice(BOLLARD, "75.00"));
        bean(Posting.class).post(ines(), batch);
        long entries = App.number("SELECT COUNT(*) FROM journal_entry");
        assertThat(bean(Posting.class).post(ines(), batch).postedNow()).isZero();
        assertThat(App.number("SELECT COUNT(*) FROM journal_entry")).isEqualTo(entries);
    }

    @Test
    void aPartPaymentEarnsItsShareAndLeavesTheRestOpen() {
        InvoiceId invoice = App.invoice("Blackwater Dry Dock", "1250.00");
        BatchId batch = App.draft(invoice);
        bean(Drafting.class).pay(ines(), batch, version(batch), invoice, "500.00");
        assertThat(App.number("SELECT amount_minor FROM claim WHERE batch_id = ?", batch.value()))
                .isEqualTo(50_000);
        assertThatThrownBy(() -> bean(Drafting.class).pay(ines(), batch, version(batch), invoice, "1250.01"))
                .hasMessageContaining("is more than");
        for (String bad : List.of("0", "-5", "12.345", "=1", "")) {
            assertThatThrownBy(() -> bean(Drafting.class).pay(ines(), batch, version(batch), invoice, bad))
                    .isInstanceOf(Refusal.class);
        }
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
        assertThat(App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isZero();
    }

    @Test
    void aChangeAfterApprovalVoidsIt() {
        InvoiceId stays = App.invoice(BOLLARD, "20.00");
        InvoiceId goes = App.invoice(BOLLARD, "30.00");
        BatchId batch = App.approved(stays, goes);
        bean(Drafting.class).takeOut(ines(), batch, version(batch), java.util.Set.of(goes));
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.DRAFT);
        assertThatThrownBy(() -> App.numbered(batch)).hasMessageContaining("Only an approved batch");
        bean(Sending.class).send(ines(), batch, version(batch));
        App.approve(batch);
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.APPROVED);
    }

    @Test
    void rejectsOwnApprovalAndWrongRole() {
        BatchId batch = App.draft(App.invoice(BOLLARD, "10.00"));
        bean(Sending.class).send(ines(), batch, version(batch));
        String seen = bean(Approvals.class).seen(batch);
        assertThatThrownBy(() -> bean(Approvals.class).approve(ines(), batch, seen))
                .hasMessageContaining("needs the role");
        var both = new leveltally.core.people.Actor(
                ines().person(),
                "ines",
                java.util.Set.of(leveltally.core.people.Role.CLERK, leveltally.core.people.Role.APPROVER),
                App.TODAY,
                java.time.Instant.now(),
                "test");
        assertThatThrownBy(() -> bean(Approvals.class).approve(both, batch, seen))
                .hasMessageContaining("somebody else must approve it");
        bean(Approvals.class).sendBack(maren(), batch, "two of these look alike", java.util.Map.of());
        assertThat(bean(Batches.class).get(batch).sentBackReason()).isEqualTo("two of these look alike");
    }

    @Test
    void aHoldAfterApprovalRefusesTheClaimByName() {
        InvoiceId invoice = App.invoice("Coaming Timber", "64.00");
        BatchId batch = App.approved(invoice);
        bean(Holds.class).hold(ines(), invoice, "not delivered");
        assertThatThrownBy(() -> App.numbered(batch))
                .hasMessageContaining("Coaming Timber")
                .hasMessageContaining("not delivered");
        bean(Drafting.class).takeOut(ines(), batch, version(batch), java.util.Set.of(invoice));
    }

    @Test
    void aStaleVersionSaysWhoAndWhat() {
        InvoiceId a = App.invoice(BOLLARD, "11.00");
        InvoiceId b = App.invoice(BOLLARD, "12.00");
        BatchId batch = App.draft(a, b);
        long seen = version(batch);
        bean(Drafting.class).takeOut(App.tomas(), batch, seen, java.util.Set.of(a));
        assertThatThrownBy(() -> bean(Drafting.class).takeOut(ines(), batch, seen, java.util.Set.of(b)))
                .hasMessageContaining("Tomas Brandt changed this batch")
                .hasMessageContaining("took out T-");
    }

    @Test
    void aSpoiledCheckGetsANewNumberAndBothStayInTheRegister() {
        BatchId batch = App.approved(App.invoice(OAKUM, "90.00"), App.invoice(BOLLARD, "80.00"));
        long run = App.numbered(batch);
        App.handOver(run);
        List<Long> documents = App.documents(run);
        App.answer(batch, documents.subList(0, 1), Answer.GOOD, "");
        App.answer(batch, documents.subList(1, 2), Answer.SPOILED, "smeared");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 1));
        long again = App.numbered(batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 2, 0));
        assertThat(App.number(
                        "SELECT COUNT(*) FROM check_number n JOIN payment p ON p.id = n.payment_id WHERE p.batch_id = ?",
                        batch.value()))
                .isEqualTo(3);
        assertThat(bean(Levels.class).of(batch).isLevel()).isTrue();
    }

    @Test
    void aHeldVendorCannotBeSent() {
        InvoiceId invoice = App.invoice("Eider Down Bedding", "33.00");
        BatchId batch = App.draft(invoice);
        bean(Vendors.class).hold(App.tomas(), App.vendor("Eider Down Bedding"), "address unclear");
        assertThatThrownBy(() -> bean(Sending.class).send(ines(), batch, version(batch)))
                .hasMessageContaining("address unclear");
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
    }
}
