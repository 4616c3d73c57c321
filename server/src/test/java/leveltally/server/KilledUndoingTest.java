package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import leveltally.core.batches.BatchId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.printing.Answer;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Reissuing;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.Test;

/** Whenever the connections break while something is posted or undone, it is done whole or not at all, and can be tried again. */
class KilledUndoingTest {
    private static final int ROUNDS = 16;

    private final Random random = new Random(41_237);
    private final Killing killing = new Killing(random);

    @Test
    void postingUndoingAndAgreeingAreWholeOrNothing() throws Exception {
        for (int round = 0; Killing.goesOn(round, ROUNDS, killing.broken()); round++) {
            BatchId batch = recorded(round);
            killing.whole(
                    () -> bean(Posting.class).post(ines(), batch),
                    "SELECT COUNT(*) FROM payment WHERE batch_id = " + batch.value()
                            + " AND posted_entry_id IS NOT NULL");
            PaymentId payment = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
            String undone =
                    "SELECT COUNT(*) FROM payment WHERE id = " + payment.value() + " AND undone_entry_id IS NOT NULL";
            if (round % 2 == 0) {
                killing.whole(
                        () -> bean(Undoing.class).undo(ines(), wanted(payment, Wanted.Fate.OPEN), "killed"), undone);
            } else {
                Undoing.Asked asked = bean(Undoing.class)
                        .undo(
                                ines(),
                                wanted(payment, new Wanted.Fate(Wanted.How.OWN_LINES, null, null)),
                                "killed, by two");
                assertThat(asked.waits()).isTrue();
                killing.whole(
                        () -> {
                            bean(Questions.class).agree(App.ruth(), asked.id());
                            return "done";
                        },
                        undone);
            }
        }
        assertThat(killing.broken()).as("deeds that broke in the middle").isGreaterThan(2);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** The old check is voided with the posting of the new one, and what was paid ahead ends with its wire: both or none. */
    @Test
    void aReissueAndAPrepaymentAreWholeWhereverTheirConnectionBreaks() throws Exception {
        killing.begin();
        for (int round = 0; Killing.goesOn(round, 6, killing.broken()); round++) {
            BatchId first = App.printed(App.invoice("Coaming Timber", (60 + round) + ".00"));
            bean(Posting.class).post(ines(), first);
            PaymentId old = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", first.value()));
            BatchId second = bean(Reissuing.class)
                    .reissue(later(), old, new Reissuing.Once(App.CHECK_DATE, null, null, null, "lost in the mail"));
            App.approve(second);
            long run = App.numbered(second);
            App.handOver(run);
            App.answer(second, App.documents(run), Answer.GOOD, "");
            String both = "SELECT COUNT(*) FROM payment o JOIN payment n ON n.replaces_id = o.id WHERE o.id = "
                    + old.value() + " AND ";
            killing.whole(
                    () -> bean(Posting.class).post(later(), second),
                    both + "n.posted_entry_id IS NOT NULL AND o.undone_entry_id IS NOT NULL");
            assertThat(number(both + "(n.posted_entry_id IS NOT NULL) <> (o.undone_entry_id IS NOT NULL)"))
                    .isZero();

            String reference = "KA-" + round;
            BatchId wire = App.elsewhere(
                    "Wires",
                    new OutsideRow("KILLED A" + round, App.TODAY, "Coaming Timber", "ahead " + reference, "50.00"));
            String item =
                    "SELECT COUNT(*) FROM invoice WHERE reference = '" + reference + "' AND kind = 'PREPAYMENT' AND ";
            killing.whole(() -> bean(Posting.class).post(ines(), wire), item + "cancelled_on IS NULL");
            App.invoice("Coaming Timber", "70.00", App.TODAY, reference);
            PaymentId ahead = new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", wire.value()));
            killing.whole(
                    () -> bean(Undoing.class).undo(ines(), wanted(ahead, Wanted.Fate.OPEN), "killed"),
                    item + "cancelled_on IS NOT NULL");
            assertThat(number("SELECT open_minor FROM invoice WHERE reference = ? AND kind = 'INVOICE'", reference))
                    .isEqualTo(7_000);
        }
        assertThat(killing.broken()).as("deeds that broke in the middle").isGreaterThan(2);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static Actor later() {
        Actor who = ines();
        return new Actor(who.person(), who.name(), who.roles(), App.CHECK_DATE, java.time.Instant.now(), who.from());
    }

    private static BatchId recorded(int round) {
        String amount = (80 + round) + ".00";
        var invoice = App.invoice("Bollard Foundry", amount);
        String reference = App.jdbc()
                .sql("SELECT reference FROM invoice WHERE id = ?")
                .param(invoice.value())
                .query(String.class)
                .single();
        return App.elsewhere(
                "Wires", new OutsideRow("KILLED " + round, App.TODAY, "Bollard Foundry", reference, amount));
    }

    private static Wanted wanted(PaymentId payment, Wanted.Fate fate) {
        return new Wanted(List.of(new Wanted.One(payment.value(), List.of())), App.TODAY, fate, null, "RET K");
    }
}
