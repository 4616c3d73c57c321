package leveltally.server.batches;

import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Closes batches that nothing left. */
@Service
public class Withdrawing {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final AuditTrail audit;

    Withdrawing(JdbcClient jdbc, Batches batches, AuditTrail audit) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.audit = audit;
    }

    /** Closes a batch before anything left it; it is kept, its invoices are free again. */
    @Transactional
    public void withdraw(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = batches.lock(id, version);
        BatchState before = batch.state;
        if (before.isLive() && !before.isEditable()) {
            throw Refusal.conflict(
                    "numbers-taken",
                    "Numbers of this batch are taken. Take its payments out one by one, or all of them, at Print: each "
                            + "number then has its answer, and the batch closes.");
        }
        BatchState after = before.to(BatchState.WITHDRAWN);
        batches.voided(by, batch, "withdrew it");
        batch.state = after;
        jdbc.sql("DELETE FROM reservation WHERE batch_id = :batch")
                .param("batch", batch.id)
                .update();
        Batches.touch(batch, by, "withdrew it");
        audit.record(by, "withdraw batch", "batch " + batch.id, Map.of("before", before.words()));
    }
}
