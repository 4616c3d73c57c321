package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Making;
import leveltally.server.batches.Withdrawing;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.clearing.BankReading;
import leveltally.server.invoices.Holds;
import leveltally.server.invoices.InvoiceChanging;
import leveltally.server.ledger.Periods;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.outside.OutsideRow;
import leveltally.server.people.Staff;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Answers;
import leveltally.server.printing.Numbered;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.OwnNumbers;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Reissuing;
import leveltally.server.voiding.Stops;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.springframework.dao.PessimisticLockingFailureException;

/** The same thing done by two at the same instant: one wins, the other is told, and no law breaks. */
class ThreadsTest {
    /** Runs all at once; answers what each returned or threw. */
    private static List<Object> together(List<Callable<?>> deeds) throws InterruptedException {
        ExecutorService pool = Executors.newFixedThreadPool(deeds.size());
        CyclicBarrier start = new CyclicBarrier(deeds.size());
        List<Future<Object>> running = new ArrayList<>();
        for (Callable<?> deed : deeds) {
            running.add(pool.submit(() -> {
                start.await();
                return deed.call();
            }));
        }
        List<Object> outcomes = new ArrayList<>();
        for (Future<Object> future : running) {
            try {
                Object value = future.get();
                outcomes.add(value == null ? "done" : value);
            } catch (ExecutionException refused) {
                assertThat(refused.getCause()).isInstanceOfAny(Refusal.class, PessimisticLockingFailureException.class);
                outcomes.add(refused.getCause());
            }
        }
        pool.shutdown();
        return outcomes;
    }

    private static long refusals(List<Object> outcomes) {
        return outcomes.stream().filter(Throwable.class::isInstance).count();
    }

    @RepeatedTest(3)
    void twoClerksTakeTheSameInvoice() throws InterruptedException {
        InvoiceId invoice = App.invoice("Bollard Foundry", "44.00");
        List<Object> outcomes = together(List.of(
                () -> bean(Making.class).make(ines(), App.of(List.of(invoice))),
                () -> bean(Making.class).make(App.tomas(), App.of(List.of(invoice)))));
        assertThat(refusals(outcomes)).isOne();
        assertThat(App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isOne();
        outcomes.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .forEach(batch -> bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void twoClerksEditOneDraftAndOneIsToldWhoWasFirst() throws InterruptedException {
        InvoiceId a = App.invoice("Bollard Foundry", "41.00");
        InvoiceId b = App.invoice("Coaming Timber", "42.00");
        BatchId batch = App.draft(a, b);
        long seen = App.version(batch);
        Drafting drafting = bean(Drafting.class);
        Withdrawing withdrawing = bean(Withdrawing.class);
        List<Object> outcomes = together(List.of(
                () -> {
                    drafting.takeOut(ines(), batch, seen, Set.of(a));
                    return "done";
                },
                () -> {
                    drafting.pay(App.tomas(), batch, seen, b, "10.00");
                    return "done";
                }));
        assertThat(refusals(outcomes)).isOne();
        assertThat(outcomes.stream().filter(Refusal.class::isInstance).map(Object::toString))
                .allMatch(words -> words.contains("changed this batch at"));
        withdrawing.withdraw(ines(), batch, App.version(batch));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void anOffsetAndABatchWantTheSameInvoice() throws InterruptedException {
        InvoiceId invoice = App.invoice("Ironwrack Chain", "300.00");
        InvoiceId credit = BenchTest.credit("Ironwrack Chain", "300.00");
        List<Object> outcomes = together(List.of(
                () -> bean(Making.class).make(ines(), App.of(List.of(invoice))),
                () -> bean(leveltally.server.invoices.Offsets.class)
                        .make(App.tomas(), App.vendor("Ironwrack Chain"), List.of(invoice), List.of(credit))));
        assertThat(refusals(outcomes)).isOne();
        long open = App.number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
        long reserved = App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", invoice.value());
        assertThat(open == 0).isNotEqualTo(reserved == 1);
        outcomes.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .forEach(batch -> bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void twoPeopleTakeTheTurn() throws InterruptedException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "45.00"));
        List<Object> outcomes = together(List.of(
                () -> bean(Turns.class).take(ines(), App.operations(), batch, ""),
                () -> bean(Turns.class).take(App.tomas(), App.operations(), batch, "")));
        assertThat(refusals(outcomes)).isOne();
        Turn open = bean(Turns.class).current(App.operations()).orElseThrow();
        boolean mine = open.person().equals(ines().person());
        bean(Turns.class).giveBack(mine ? ines() : App.tomas(), App.operations(), open.serial());
    }

    @Test
    void fourClicksOnPostPostOnce() throws InterruptedException {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", "46.00"));
        Callable<Posting.Outcome> click = () -> bean(Posting.class).post(ines(), batch);
        List<Object> outcomes = together(List.of(click, click, click, click));
        int posted = outcomes.stream()
                .filter(Posting.Outcome.class::isInstance)
                .mapToInt(outcome -> ((Posting.Outcome) outcome).postedNow())
                .sum();
        assertThat(posted).isOne();
        assertThat(App.number("SELECT COUNT(*) FROM journal_entry WHERE batch_id = ?", batch.value()))
                .isOne();
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void postingAgainstThePeriodLock() throws InterruptedException {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", "47.00"));
        YearMonth november = YearMonth.of(2026, 11);
        List<Object> outcomes = together(List.of(() -> bean(Posting.class).post(ines(), batch), () -> {
            bean(Periods.class).lock(App.ruth(), november);
            return "locked";
        }));
        // a numbered payment keeps the month open until it is posted, so either order ends without a loss
        boolean locked = outcomes.contains("locked");
        if (locked) {
            assertThat(bean(Proof.class).run().isClean()).isTrue();
            bean(Periods.class).unlock(App.ruth(), november, "the test goes on");
        }
        assertThat(outcomes.get(0)).isInstanceOf(Posting.Outcome.class);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @Test
    void twoRunsNeverShareANumber() throws InterruptedException {
        BatchId first = App.approved(App.invoice("Bollard Foundry", "48.00"));
        BatchId second = App.approved(App.invoice("Pelorus Charts", "49.00"));
        Turn turn = bean(Turns.class).take(ines(), App.operations(), first, "");
        long next = App.nextNumber();
        var numbering = bean(Numbering.class);
        List<Object> outcomes = together(List.of(
                () -> numbering.number(ines(), first, turn.serial(), next, ""),
                () -> numbering.number(ines(), first, turn.serial(), next, ""),
                () -> numbering.number(ines(), second, turn.serial(), next, "")));
        assertThat(outcomes.stream().filter(Numbered.class::isInstance)).hasSize(1);
        assertThat(App.number("SELECT COUNT(*) FROM check_number WHERE number >= ?", next))
                .isOne();
    }

    /** One says good, one says still blank: one answer stands and the other person is told it. Spoiled wins whoever is first. */
    @RepeatedTest(3)
    void twoClerksAnswerTheSameSheetsDifferently() throws InterruptedException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", amount()), App.invoice("Pelorus Charts", amount()));
        long run = App.numbered(batch);
        App.handOver(run);
        List<Long> sheets = App.documents(run);
        List<Object> outcomes = together(List.of(() -> said(ines(), batch, sheets, Answer.GOOD), () -> {
            said(App.tomas(), batch, sheets, Answer.BLANK);
            return "blank";
        }));
        assertThat(outcomes)
                .filteredOn(Refusal.class::isInstance)
                .singleElement()
                .satisfies(told -> assertThat((Refusal) told).hasMessageContaining("was answered already"));
        if (outcomes.contains("blank")) {
            App.handOver(bean(OwnNumbers.class).print(ines(), batch));
        }
        List<Long> latest = App.jdbc()
                .sql("SELECT MAX(d.id) FROM document d JOIN payment p ON p.id = d.payment_id WHERE p.batch_id = ?"
                        + " GROUP BY d.payment_id ORDER BY d.payment_id")
                .param(batch.value())
                .query(Long.class)
                .list();
        together(List.of(
                () -> said(ines(), batch, latest, Answer.GOOD),
                () -> said(App.tomas(), batch, latest, Answer.SPOILED)));
        assertThat(App.number(
                        "SELECT COUNT(*) FROM document WHERE answer = 'SPOILED' AND id IN (?, ?)", latest.toArray()))
                .isEqualTo(2);
        long again = App.numbered(batch);
        App.handOver(again);
        App.answer(batch, App.documents(again), Answer.GOOD, "");
        assertThat(bean(Posting.class).post(ines(), batch)).isEqualTo(new Posting.Outcome(2, 2, 0));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static String said(Actor by, BatchId batch, List<Long> sheets, Answer answer) {
        bean(Answers.class)
                .answer(
                        by,
                        batch,
                        sheets.stream()
                                .map(sheet -> new Said(sheet, answer, "as it lies here"))
                                .toList());
        return answer.name();
    }

    private static PaymentId posted() {
        BatchId batch = App.printed(App.invoice("Bollard Foundry", amount()));
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static CheckNumberId checkOf(PaymentId payment) {
        return new CheckNumberId(App.number("SELECT id FROM check_number WHERE live_payment_id = ?", payment.value()));
    }

    private static Actor later(Actor who) {
        return new Actor(who.person(), who.name(), who.roles(), App.CHECK_DATE, Instant.now(), who.from());
    }

    private static String stateOf(PaymentId payment) {
        return App.jdbc()
                .sql("SELECT state FROM payment WHERE id = ?")
                .param(payment.value())
                .query(String.class)
                .single();
    }

    /** Four presses, two people: undone once, and the others are told. */
    @Test
    void aCheckIsUndoneOnceWhoeverPresses() throws InterruptedException {
        PaymentId payment = posted();
        Wanted wanted = Wanted.broughtBack(payment, App.CHECK_DATE);
        Undoing undoing = bean(Undoing.class);
        List<Object> outcomes = together(List.of(
                () -> undoing.undo(later(ines()), wanted, "lost"),
                () -> undoing.undo(later(ines()), wanted, "lost"),
                () -> undoing.undo(later(App.tomas()), wanted, "torn"),
                () -> undoing.undo(later(App.tomas()), wanted, "torn")));
        assertThat(refusals(outcomes)).isEqualTo(3);
        assertThat(App.number("SELECT COUNT(*) FROM journal_entry WHERE payment_id = ?", payment.value()))
                .isEqualTo(2);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** Voided, stopped, reissued and paid by the bank at the same instant: one of them is first, and no law breaks. */
    @RepeatedTest(4)
    void whatBecomesOfACheckIsDecidedOnce() throws InterruptedException {
        PaymentId payment = posted();
        CheckNumberId check = checkOf(payment);
        List<Object> outcomes = together(List.of(
                () -> bean(Undoing.class).undo(later(ines()), Wanted.broughtBack(payment, App.CHECK_DATE), "lost"),
                () -> {
                    Check of = bean(Checks.class).get(check);
                    BankReading.BankRead read = bean(BankReading.class)
                            .byHand(
                                    later(App.tomas()),
                                    App.operations(),
                                    String.valueOf(of.number()),
                                    of.payment().amount().plain(),
                                    App.CHECK_DATE);
                    if (read.cleared() == 0) {
                        throw Refusal.conflict("stays", "What the bank paid waits for an answer.");
                    }
                    return "cleared";
                },
                () -> bean(Reissuing.class)
                        .reissue(
                                later(App.tomas()),
                                payment,
                                new Reissuing.Once(App.CHECK_DATE, null, null, null, "lost"))));
        assertThat(refusals(outcomes)).isEqualTo(2);
        assertThat(stateOf(payment)).isIn("VOIDED", "CLEARED", "STOPPED");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
        withdrawReissues();
    }

    private static void withdrawReissues() {
        App.jdbc()
                .sql("SELECT id FROM batch WHERE purpose = 'REISSUE' AND state = 'IN_APPROVAL'")
                .query(Long.class)
                .list()
                .forEach(id -> bean(Withdrawing.class).withdraw(ines(), new BatchId(id), App.version(new BatchId(id))));
    }

    /** Two who agree to one question: it is done once; whoever takes it back at that instant is told, or was first. */
    @RepeatedTest(3)
    void aQuestionIsAnsweredOnce() throws InterruptedException {
        PaymentId payment = posted();
        Wanted cancelled = new Wanted(
                List.of(new Wanted.One(payment.value(), List.of())),
                App.CHECK_DATE,
                new Wanted.Fate(Wanted.How.OWN_LINES, null, null),
                null,
                null);
        long asked = bean(Undoing.class)
                .undo(later(ines()), cancelled, "never delivered")
                .id();
        Questions questions = bean(Questions.class);
        List<Object> outcomes = together(List.of(
                () -> {
                    questions.agree(later(App.maren()), asked);
                    return "agreed";
                },
                () -> {
                    questions.agree(later(App.aldo()), asked);
                    return "agreed";
                },
                () -> {
                    questions.refuse(later(ines()), asked, "");
                    return "taken back";
                }));
        assertThat(refusals(outcomes)).isEqualTo(2);
        assertThat(stateOf(payment)).isEqualTo(outcomes.contains("agreed") ? "VOIDED" : "OUTSTANDING");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** The posting of a reissue voids the old check; whoever voids it, or lifts its stop, at that instant is told. */
    @RepeatedTest(3)
    void aReissueIsPostedWhileItsOldCheckIsAskedFor() throws InterruptedException {
        PaymentId old = posted();
        BatchId batch = bean(Reissuing.class)
                .reissue(later(ines()), old, new Reissuing.Once(App.CHECK_DATE, null, null, null, "lost"));
        App.approve(batch);
        long run = App.numbered(batch);
        App.handOver(run);
        App.answer(batch, App.documents(run), Answer.GOOD, "");
        List<Object> outcomes = together(List.of(
                () -> bean(Posting.class).post(later(ines()), batch),
                () -> bean(Undoing.class).undo(later(App.tomas()), Wanted.broughtBack(old, App.CHECK_DATE), "void it"),
                () -> bean(Stops.class).askToLift(later(App.tomas()), old, "found")));
        assertThat(outcomes.get(0)).isInstanceOf(Posting.Outcome.class);
        assertThat(refusals(outcomes)).isEqualTo(2);
        assertThat(stateOf(old)).isEqualTo("VOIDED");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** An invoice is cancelled or taken into a batch, never both. */
    @RepeatedTest(3)
    void anInvoiceIsCancelledAgainstABatchThatWantsIt() throws InterruptedException {
        InvoiceId invoice = App.invoice("Pelorus Charts", amount());
        List<Object> outcomes = together(List.of(
                () -> {
                    bean(InvoiceChanging.class).cancel(ines(), invoice, App.TODAY, "not ours");
                    return "cancelled";
                },
                () -> App.draft(invoice)));
        assertThat(refusals(outcomes)).isOne();
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
        outcomes.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .forEach(batch -> bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch)));
    }

    private static int amounts = 151;

    /** One that no other invoice has and that is usual for its vendor, so that nothing is marked. */
    private static String amount() {
        return amounts++ + ".03";
    }

    private static BatchId sent(InvoiceId... invoices) {
        BatchId batch = App.draft(invoices);
        bean(Sending.class).send(ines(), batch, App.version(batch));
        return batch;
    }

    private static BatchState state(BatchId batch) {
        return bean(Batches.class).get(batch).state();
    }

    @RepeatedTest(3)
    void anApprovalAgainstAnEdit() throws InterruptedException {
        InvoiceId goes = App.invoice("Undertow Diving", amount());
        BatchId batch = sent(goes, App.invoice("Undertow Diving", amount()));
        String seen = bean(Approvals.class).seen(batch);
        long version = App.version(batch);
        List<Object> outcomes = together(List.of(
                () -> {
                    bean(Approvals.class).approve(App.maren(), batch, seen);
                    return "approved";
                },
                () -> {
                    bean(Drafting.class).takeOut(ines(), batch, version, Set.of(goes));
                    return "edited";
                }));
        // whichever came first, the other is told, and no approval stands for what was edited
        assertThat(refusals(outcomes)).isOne();
        boolean approved = outcomes.contains("approved");
        assertThat(state(batch)).isEqualTo(approved ? BatchState.APPROVED : BatchState.DRAFT);
        assertThat(bean(ClaimRows.class).of(batch).get(0).lines()).hasSize(approved ? 2 : 1);
        bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void twoApproversAtOnceBothCountOrOneIsTold() throws InterruptedException {
        BatchId two = sent(App.invoice("Coaming Timber", "12501.03"));
        BatchId one = sent(App.invoice("Undertow Diving", amount()));
        String seenTwo = bean(Approvals.class).seen(two);
        String seenOne = bean(Approvals.class).seen(one);
        List<Object> outcomes = together(List.of(
                approval(App.maren(), two, seenTwo),
                approval(App.aldo(), two, seenTwo),
                approval(App.maren(), one, seenOne),
                approval(App.aldo(), one, seenOne)));
        assertThat(outcomes.subList(0, 2)).containsOnly("approved");
        assertThat(refusals(outcomes.subList(2, 4))).isOne();
        assertThat(List.of(state(one), state(two))).containsOnly(BatchState.APPROVED);
        for (BatchId batch : List.of(one, two)) {
            bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        }
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static Callable<String> approval(Actor by, BatchId batch, String seen) {
        return () -> {
            bean(Approvals.class).approve(by, batch, seen);
            return "approved";
        };
    }

    @RepeatedTest(3)
    void aHoldAgainstNumbering() throws InterruptedException {
        InvoiceId invoice = App.invoice("Undertow Diving", amount());
        BatchId batch = App.approved(invoice);
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        long next = App.nextNumber();
        List<Object> outcomes =
                together(List.of(() -> bean(Numbering.class).number(ines(), batch, turn.serial(), next, ""), () -> {
                    bean(Holds.class).hold(App.tomas(), invoice, "not delivered");
                    return "held";
                }));
        // the hold always comes to stand; a number was taken only if it came later
        assertThat(outcomes.get(1)).isEqualTo("held");
        boolean numbered = outcomes.get(0) instanceof Numbered;
        assertThat(App.number("SELECT COUNT(*) FROM payment WHERE batch_id = ?", batch.value()))
                .isEqualTo(numbered ? 1 : 0);
        assertThat(state(batch)).isEqualTo(numbered ? BatchState.NUMBERED : BatchState.APPROVED);
        if (!numbered) {
            assertThat(String.valueOf(outcomes.get(0))).contains("not delivered");
            bean(Turns.class).giveBack(ines(), App.operations(), turn.serial());
            bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch));
        }
        bean(Holds.class).release(App.tomas(), invoice, "it came");
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** Both want the events of the same checks, in another order: whoever loses to a deadlock is done again unseen. */
    @RepeatedTest(3)
    void aBankFileIsMadeWhileItsChecksAreVoided() throws InterruptedException {
        List<Callable<?>> deeds = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            BatchId batch = App.printed(App.invoice("Bollard Foundry", "5" + i + ".00"));
            bean(Posting.class).post(ines(), batch);
            CheckNumberId check = new CheckNumberId(App.number(
                    "SELECT n.id FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                    batch.value()));
            Actor later = new Actor(ines().person(), "ines", ines().roles(), App.CHECK_DATE, Instant.now(), "test");
            deeds.add(() -> {
                App.voidCheck(later, check, App.CHECK_DATE, "lost");
                return "done";
            });
        }
        deeds.add(2, () -> bean(BankFiles.class).make(ines(), App.operations()));
        List<Object> outcomes = together(deeds);
        assertThat(refusals(outcomes)).as(outcomes.toString()).isZero();
        bean(BankAnswers.class).accepted(ines(), (Long) outcomes.get(2), "");
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void anApproverStrikesWhileThePersonIsChanged() throws InterruptedException {
        BatchId batch = App.draft(App.invoice("Bollard Foundry", "61.00"), App.invoice("Coaming Timber", "62.00"));
        bean(Sending.class).send(ines(), batch, App.version(batch));
        var claim = bean(ClaimRows.class).of(batch).get(0).id();
        Actor joss = App.actor("joss", Role.ADMINISTRATOR);
        PersonId maren = App.maren().person();
        long seen = App.number("SELECT version FROM person WHERE id = ?", maren.value());
        List<Object> outcomes = together(List.of(
                () -> {
                    bean(Approvals.class).strike(App.maren(), batch, Set.of(claim), "not this week");
                    return "done";
                },
                () -> {
                    bean(Staff.class)
                            .change(
                                    joss,
                                    maren,
                                    seen,
                                    "Maren Lindqvist",
                                    "maren@skerrow.example",
                                    Set.of(Role.APPROVER));
                    return "done";
                }));
        assertThat(refusals(outcomes)).as(outcomes.toString()).isZero();
        assertThat(bean(ClaimRows.class).of(batch)).hasSize(1);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static BatchId elsewhere(Actor clerk, WayId way, String number) {
        OutsideRow row = new OutsideRow(number, App.TODAY, "Ebb Tide Linen", "5400", "8.00");
        return bean(OutsidePayments.class)
                .record(clerk, new OutsidePayments.Recorded(App.operations(), way, "", "", List.of(row)), true)
                .get(0);
    }

    private static Object posted(Actor clerk, BatchId batch) {
        return bean(Posting.class).post(clerk, batch);
    }

    @RepeatedTest(3)
    void twoClerksRecordAWireWithOneReference() throws InterruptedException {
        WayId wires = new WayId(App.number("SELECT id FROM way_to_pay WHERE name = 'Wires'"));
        String reference = "RACE " + System.nanoTime();
        List<Object> recorded = together(
                List.of(() -> elsewhere(ines(), wires, reference), () -> elsewhere(App.tomas(), wires, reference)));
        List<BatchId> batches = recorded.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .toList();
        assertThat(batches).isNotEmpty();
        batches.forEach(App::approve);
        List<Object> outcomes = together(batches.stream()
                .<Callable<?>>map(batch -> () -> posted(ines(), batch))
                .toList());
        assertThat(outcomes.size() - refusals(outcomes)).as(outcomes.toString()).isOne();
        assertThat(App.number("SELECT COUNT(*) FROM outside_number WHERE number = ?", reference))
                .isOne();
        batches.stream()
                .filter(batch -> bean(Batches.class).get(batch).state() != BatchState.POSTED)
                .forEach(batch -> bean(Withdrawing.class).withdraw(ines(), batch, App.version(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    /** One torn sheet and a run want the next number: one of them has it, and none is lost. */
    @RepeatedTest(3)
    void aRunTakesTheNumberOfACheckThatIsWrittenByHand() throws InterruptedException {
        WayId checks = new WayId(App.number("SELECT way_id FROM number_series WHERE id = ?", App.series()));
        BatchId printed = App.approved(App.invoice("Bollard Foundry", "63.00"));
        long next = App.nextNumber();
        BatchId written = elsewhere(App.tomas(), checks, Long.toString(next));
        App.approve(written);
        Turn turn = bean(Turns.class).take(ines(), App.operations(), printed, "");
        List<Object> outcomes = together(List.of(
                () -> bean(Numbering.class).number(ines(), printed, turn.serial(), next, ""),
                () -> posted(App.tomas(), written)));
        assertThat(outcomes.size() - refusals(outcomes)).as(outcomes.toString()).isOne();
        assertThat(App.number(
                        "SELECT COUNT(*) FROM check_number WHERE series_id = ? AND number = ?", App.series(), next))
                .isOne();
        assertThat(bean(Proof.class).run().isClean()).isTrue();
        if (outcomes.get(0) instanceof Throwable) {
            bean(Turns.class).giveBack(ines(), App.operations(), turn.serial());
            bean(Withdrawing.class).withdraw(ines(), printed, App.version(printed));
        } else {
            bean(Withdrawing.class).withdraw(App.tomas(), written, App.version(written));
            long run = App.number(
                    "SELECT MAX(run_id) FROM document d JOIN payment p ON p.id = d.payment_id WHERE p.batch_id = ?",
                    printed.value());
            App.handOver(run);
            App.answer(printed, App.documents(run), Answer.GOOD, "");
            posted(ines(), printed);
        }
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }
}
