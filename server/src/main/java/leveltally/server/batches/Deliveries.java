package leveltally.server.batches;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Delivery;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How the checks of a batch reach their payees. It is no part of what is approved, and can be said at any time. */
@Service
public class Deliveries {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final AuditTrail audit;

    Deliveries(JdbcClient jdbc, Batches batches, AuditTrail audit) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.audit = audit;
    }

    /** What does not go by mail: as it was said of the payment, or else as the vendor's checks usually go. */
    @Transactional(readOnly = true)
    public Map<ClaimId, Delivery> of(BatchId batch) {
        Map<ClaimId, Delivery> found = new HashMap<>();
        jdbc.sql("""
                        SELECT x.claim_id, x.delivery FROM (
                          SELECT c.id AS claim_id, COALESCE(d.delivery, v.check_delivery) AS delivery
                          FROM claim c JOIN vendor v ON v.id = c.vendor_id LEFT JOIN claim_delivery d ON d.claim_id = c.id
                          WHERE c.batch_id = :batch) x
                        WHERE x.delivery <> :mail
                        """)
                .param("batch", batch.value())
                .param("mail", Delivery.MAIL.name())
                .query((java.sql.ResultSet r) -> {
                    found.put(new ClaimId(r.getLong("claim_id")), Delivery.valueOf(r.getString("delivery")));
                });
        return found;
    }

    @Transactional
    public void say(Actor by, BatchId id, Set<ClaimId> claims, Delivery delivery) {
        by.mayDo(Deed.EDIT_BATCH);
        batches.lockAnyVersion(id);
        List<Long> wanted = claims.stream().map(ClaimId::value).toList();
        int there = jdbc.sql("SELECT COUNT(*) FROM claim WHERE batch_id = :batch AND id IN (:claims)")
                .param("batch", id.value())
                .param("claims", wanted)
                .query(Integer.class)
                .single();
        if (there != wanted.size()) {
            throw Refusal.notFound("not-in-batch", "One of these payments is not in the batch any more. Look again.");
        }
        jdbc.sql("DELETE FROM claim_delivery WHERE claim_id IN (:claims)")
                .param("claims", wanted)
                .update();
        jdbc.sql(
                        "INSERT INTO claim_delivery (claim_id, delivery) SELECT id, :delivery FROM claim WHERE id IN (:claims)")
                .param("delivery", delivery.name())
                .param("claims", wanted)
                .update();
        audit.record(
                by,
                "say how checks go",
                "batch " + id.value(),
                Map.of("payments", wanted.size(), "go", delivery.words()));
    }
}
