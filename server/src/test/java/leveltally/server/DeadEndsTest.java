package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.batches.About;
import leveltally.server.batches.AboutBatch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Withdrawing;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Answers;
import leveltally.server.printing.Numbered;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.OwnNumbers;
import leveltally.server.printing.TakingOut;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** From every state of a batch and its numbers there is a way to an end, and then its month can be closed. */
class DeadEndsTest {
    private final Numbering numbering = bean(Numbering.class);
    private final Answers answers = bean(Answers.class);
    private final TakingOut takingOut = bean(TakingOut.class);

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** Where a batch of two payments may be stuck. */
    private enum Stuck {
        APPROVED,
        NUMBERED_BUT_NOT_PRINTED,
        PRINTED_BUT_NOT_ANSWERED,
        STILL_BLANK,
        GOOD_BUT_NOT_POSTED,
        SPOILED_AND_NOT_NUMBERED_AGAIN,
        BLANK_NUMBER_RELEASED
    }

    private BatchId stuck(Stuck where) {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "41.00"), App.invoice("Pelorus Charts", "42.00"));
        if (where == Stuck.APPROVED) {
            return batch;
        }
        long run = App.numbered(batch);
        if (where == Stuck.NUMBERED_BUT_NOT_PRINTED) {
            return batch;
        }
        App.handOver(run);
        List<Long> documents = App.documents(run);
        switch (where) {
            case GOOD_BUT_NOT_POSTED -> App.answer(batch, documents, Answer.GOOD, "");
            case SPOILED_AND_NOT_NUMBERED_AGAIN -> App.answer(batch, documents, Answer.SPOILED, "coffee");
            case STILL_BLANK -> App.answer(batch, documents, Answer.BLANK, "");
            case BLANK_NUMBER_RELEASED -> {
                App.answer(batch, documents, Answer.BLANK, "");
                answers.releaseBlanks(ines(), batch, new HashSet<>(documents), "the packet is lost");
            }
            default -> {
                // printed, and nobody looked
            }
        }
        return batch;
    }

    private static Set<ClaimId> claims(BatchId batch) {
        return bean(ClaimRows.class).of(batch).stream().map(Claim::id).collect(Collectors.toSet());
    }

    private static long waitingPayments(BatchId batch) {
        return App.number(
                "SELECT COUNT(*) FROM payment WHERE batch_id = ? AND posted_entry_id IS NULL AND standing",
                batch.value());
    }

    @ParameterizedTest
    @EnumSource(Stuck.class)
    void takingEverythingOutEndsTheBatchAndFreesItsInvoices(Stuck where) {
        BatchId batch = stuck(where);
        List<InvoiceId> invoices = bean(ClaimRows.class).of(batch).stream()
                .map(claim -> claim.lines().get(0).item().orElseThrow())
                .toList();
        assertThatThrownBy(() -> takingOut.takeOut(ines(), batch, claims(batch), true, " "))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Say why");
        takingOut.takeOut(ines(), batch, claims(batch), where == Stuck.PRINTED_BUT_NOT_ANSWERED, "not wanted any more");
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.WITHDRAWN);
        assertThat(waitingPayments(batch)).isZero();
        assertThat(App.number(
                        "SELECT COUNT(*) FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                        batch.value()))
                .isZero();
        BatchId again = App.draft(invoices.toArray(new InvoiceId[0]));
        bean(Withdrawing.class).withdraw(ines(), again, App.version(again));
    }

    @Test
    void whatIsLeftIsPostedAndTheBatchEnds() {
        BatchId batch = stuck(Stuck.STILL_BLANK);
        ClaimId first = bean(ClaimRows.class).of(batch).get(0).id();
        takingOut.takeOut(ines(), batch, Set.of(first), false, "paid elsewhere");
        long again = bean(OwnNumbers.class).print(ines(), batch);
        App.handOver(again);
        assertThat(App.documents(again)).hasSize(1);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 0));
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.POSTED);
        assertThatThrownBy(() -> takingOut.takeOut(ines(), batch, claims(batch), true, "too late"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("what is posted is voided");
    }

    /** A run whose numbers were taken before a payment came out prints without it. */
    @Test
    void paperOfAPaymentThatIsOutIsNotPrinted() {
        BatchId batch = stuck(Stuck.NUMBERED_BUT_NOT_PRINTED);
        ClaimId first = bean(ClaimRows.class).of(batch).get(0).id();
        takingOut.takeOut(ines(), batch, Set.of(first), false, "paid elsewhere");
        long run = App.number("SELECT MAX(id) FROM print_run WHERE batch_id = ?", batch.value());
        App.handOver(run);
        assertThat(App.number(
                        "SELECT COUNT(*) FROM tray_sheet t JOIN document d ON d.id = t.document_id WHERE d.run_id = ?",
                        run))
                .isOne();
        takingOut.takeOut(ines(), batch, claims(batch), true, "all of it");
    }

    /** One held vendor keeps its own payment behind, by name, and nobody else's. */
    @Test
    void oneHeldVendorStaysBehindAndTheOthersGoOn() {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "43.00"), App.invoice("Ironwrack Chain", "44.00"));
        bean(Vendors.class).hold(ines(), App.vendor("Ironwrack Chain"), "under dispute");
        try {
            Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
            Numbered numbered = numbering.number(ines(), batch, turn.serial(), App.nextNumber(), "");
            assertThat(numbered.behind()).singleElement().satisfies(behind -> {
                assertThat(behind.payee()).isEqualTo("Ironwrack Chain");
                assertThat(behind.why())
                        .contains("the vendor is held, under dispute")
                        .contains("Take it out");
            });
            App.handOver(numbered.run());
            assertThat(App.documents(numbered.run())).hasSize(1);
            App.answer(batch, App.documents(numbered.run()), Answer.GOOD, "");
            assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(1, 1, 1));
            assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.NUMBERED);
            ClaimId behind = numbered.behind().get(0).claim();
            takingOut.takeOut(ines(), batch, Set.of(behind), false, "stays for the dispute");
            assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.POSTED);
        } finally {
            bean(Vendors.class).release(App.ruth(), App.vendor("Ironwrack Chain"), "settled");
        }
    }

    /** Name, note and ledger date need no new approval; another check date does, and reckons the amounts anew. */
    @Test
    void whatIsSaidOfABatchCanBeChangedUntilNumbersAreTaken() {
        AboutBatch aboutBatch = bean(AboutBatch.class);
        Withdrawing withdrawing = bean(Withdrawing.class);
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "45.00"));
        aboutBatch.about(ines(), batch, App.version(batch), new About("Renamed", "n", App.TODAY, App.CHECK_DATE));
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.APPROVED);
        assertThat(bean(Batches.class).get(batch).ledgerDate()).isEqualTo(App.TODAY);
        assertThatThrownBy(() -> aboutBatch.about(
                        ines(),
                        batch,
                        App.version(batch),
                        new About("x", "", App.TODAY.withDayOfMonth(1), App.CHECK_DATE)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("from Mon 2 Nov 2026 on");
        assertThatThrownBy(() -> aboutBatch.about(
                        ines(), batch, App.version(batch), new About("x", "", App.TODAY, App.TODAY.minusDays(1))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("A check date lies between today");
        aboutBatch.about(
                ines(), batch, App.version(batch), new About("Later", "", App.TODAY, App.CHECK_DATE.plusDays(7)));
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.DRAFT);
        withdrawing.withdraw(ines(), batch, App.version(batch));
    }

    /** Lines beyond the stub are a job of its own on plain paper; a claim is one sheet of stock. */
    @Test
    void adviceIsAJobOfItsOwnOnPlainPaper() {
        InvoiceId[] many = new InvoiceId[30];
        for (int i = 0; i < many.length; i++) {
            many[i] = App.invoice("Bollard Foundry", "1." + (10 + i));
        }
        BatchId batch = App.approved(many);
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        Numbered numbered = numbering.number(ines(), batch, turn.serial(), App.nextNumber(), "");
        assertThat(App.documents(numbered.run())).hasSize(1);
        assertThat(App.number("SELECT pages FROM document WHERE run_id = ?", numbered.run()))
                .isOne();
        Long advices = numbered.advices();
        assertThat(advices).isNotNull();
        App.handOver(numbered.run());
        App.handOver(advices);
        assertThat(App.number("SELECT COUNT(*) FROM document WHERE run_id = ? AND kind = 'ADVICE'", advices))
                .isOne();
        String state = Http.signedIn("priya")
                .get("/api/batches/" + batch.value() + "/printing")
                .body();
        assertThat(state).contains("\"unanswered\":1").contains("\"payments\":1");
        App.answer(batch, App.documents(numbered.run()), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
    }
}
