package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;

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
import leveltally.core.invoices.InvoiceId;
import leveltally.server.batches.Drafting;
import leveltally.server.ledger.Ledger;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
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
                () -> bean(Drafting.class).make(ines(), App.of(List.of(invoice))),
                () -> bean(Drafting.class).make(App.tomas(), App.of(List.of(invoice)))));
        assertThat(refusals(outcomes)).isOne();
        assertThat(App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isOne();
        outcomes.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .forEach(batch -> bean(Drafting.class).withdraw(ines(), batch, App.version(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void twoClerksEditOneDraftAndOneIsToldWhoWasFirst() throws InterruptedException {
        InvoiceId a = App.invoice("Bollard Foundry", "41.00");
        InvoiceId b = App.invoice("Coaming Timber", "42.00");
        BatchId batch = App.draft(a, b);
        long seen = App.version(batch);
        Drafting drafting = bean(Drafting.class);
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
        drafting.withdraw(ines(), batch, App.version(batch));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void anOffsetAndABatchWantTheSameInvoice() throws InterruptedException {
        InvoiceId invoice = App.invoice("Ironwrack Chain", "300.00");
        InvoiceId credit = BenchTest.credit("Ironwrack Chain", "300.00");
        List<Object> outcomes = together(List.of(
                () -> bean(Drafting.class).make(ines(), App.of(List.of(invoice))),
                () -> bean(leveltally.server.invoices.Offsets.class)
                        .make(App.tomas(), App.vendor("Ironwrack Chain"), List.of(invoice), List.of(credit))));
        assertThat(refusals(outcomes)).isOne();
        long open = App.number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
        long reserved = App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", invoice.value());
        assertThat(open == 0).isNotEqualTo(reserved == 1);
        outcomes.stream()
                .filter(BatchId.class::isInstance)
                .map(BatchId.class::cast)
                .forEach(batch -> bean(Drafting.class).withdraw(ines(), batch, App.version(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @RepeatedTest(3)
    void twoPeopleTakeTheTurn() throws InterruptedException {
        BatchId batch = App.approved(App.invoice("Bollard Foundry", "45.00"));
        List<Object> outcomes = together(List.of(
                () -> bean(Turns.class).take(ines(), App.operations(), batch, ""),
                () -> bean(Turns.class).take(App.tomas(), App.operations(), batch, "")));
        assertThat(refusals(outcomes)).isOne();
        Turns.Turn open = bean(Turns.class).current(App.operations()).orElseThrow();
        boolean mine = open.person() == ines().person().value();
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
            bean(Ledger.class).lock(App.ruth(), november);
            return "locked";
        }));
        // a numbered payment keeps the month open until it is posted, so either order ends without a loss
        boolean locked = outcomes.contains("locked");
        if (locked) {
            assertThat(bean(Proof.class).run().isClean()).isTrue();
            bean(Ledger.class).unlock(App.ruth(), november, "the test goes on");
        }
        assertThat(outcomes.get(0)).isInstanceOf(Posting.Outcome.class);
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    @Test
    void twoRunsNeverShareANumber() throws InterruptedException {
        BatchId first = App.approved(App.invoice("Bollard Foundry", "48.00"));
        BatchId second = App.approved(App.invoice("Pelorus Charts", "49.00"));
        Turns.Turn turn = bean(Turns.class).take(ines(), App.operations(), first, "");
        long next = App.nextNumber();
        var printing = bean(leveltally.server.printing.Printing.class);
        List<Object> outcomes = together(List.of(
                () -> printing.number(ines(), first, turn.serial(), next, ""),
                () -> printing.number(ines(), first, turn.serial(), next, ""),
                () -> printing.number(ines(), second, turn.serial(), next, "")));
        assertThat(outcomes.stream().filter(Long.class::isInstance)).hasSize(1);
        assertThat(App.number("SELECT COUNT(*) FROM check_number WHERE number >= ?", next))
                .isOne();
    }
}
