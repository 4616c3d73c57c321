package leveltally.server.batches;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Draft;
import leveltally.core.batches.Gathering;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Selection;
import leveltally.server.selection.Due;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs the criteria of a draft again: shows the difference, and applies exactly what was shown. */
@Service
public class GatheringAgain {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final DraftRows rows;
    private final Due due;
    private final Edits edits;
    private final KeptQuestion question;

    GatheringAgain(JdbcClient jdbc, Batches batches, DraftRows rows, Due due, Edits edits, KeptQuestion question) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.rows = rows;
        this.due = due;
        this.edits = edits;
        this.question = question;
    }

    /** What running the batch's criteria again would change. */
    @Transactional(readOnly = true)
    public Gathering gathering(Actor by, BatchId id) {
        by.mayDo(Deed.READ);
        BatchEntity batch = batches.row(id);
        Draft draft = rows.draft(batch.id);
        return Gathering.of(draft, again(batch, draft, by.today()));
    }

    /**
     * Applies that difference, exactly as it was shown; what was decided by hand stays.
     *
     * @param shown {@link Gathering#shown} of what whoever applies it looked at
     */
    @Transactional
    public void gatherAgain(Actor by, BatchId id, long version, String shown) {
        BatchEntity batch = edits.open(by, id, version);
        Draft before = rows.draft(batch.id);
        Selection now = again(batch, before, by.today());
        Gathering difference = Gathering.of(before, now);
        if (difference.isEmpty()) {
            throw Refusal.conflict(
                    "nothing-new", "The criteria would take exactly what the batch has. Nothing changed.");
        }
        if (!difference.shown().equals(shown)) {
            throw Refusal.conflict(
                    "gathering-changed",
                    "What the criteria take changed while you looked: now "
                            + difference.added().size()
                            + " would come in and " + difference.removed().size()
                            + " would go out. Nothing was changed; look at the difference again, then apply it.");
        }
        String what = "gathered again: " + difference.added().size() + " in, "
                + difference.removed().size() + " out";
        edits.step(by, batch, before, difference.applyTo(before, now), what, false);
    }

    private Selection again(BatchEntity batch, Draft draft, LocalDate today) {
        if (batch.question == null) {
            throw Refusal.conflict(
                    "no-criteria", "This batch was not made from criteria. Add what is missing by hand.");
        }
        Set<InvoiceId> in = new HashSet<>();
        draft.claims()
                .forEach(claim -> claim.lines().stream()
                        .filter(line -> line.byHand() && line.kind() == leveltally.core.batches.ClaimLine.Kind.INVOICE)
                        .forEach(line -> in.add(line.id())));
        Set<InvoiceId> out = new HashSet<>(jdbc.sql("SELECT invoice_id FROM batch_out WHERE batch_id = :batch")
                .param("batch", batch.id)
                .query((r, n) -> new InvoiceId(r.getLong("invoice_id")))
                .list());
        return due.selectAgain(question.of(batch), today, batch.id, new Marks(out, in));
    }
}
