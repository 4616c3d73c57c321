package leveltally.server.vendors;

import java.util.Currency;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Merge;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes one vendor of two that always were one. */
@Service
public class VendorMerging {
    private final JdbcClient jdbc;
    private final VendorChanges changes;
    private final AuditTrail audit;

    VendorMerging(JdbcClient jdbc, VendorChanges changes, AuditTrail audit) {
        this.jdbc = jdbc;
        this.changes = changes;
        this.audit = audit;
    }

    /**
     * Documents, payments and offsets become the kept vendor's. Addresses that open documents still name come along and wait
     * for a second person; what was printed and approved says what it said.
     */
    @Transactional
    public void merge(Actor by, VendorId gone, VendorId kept, String why) {
        by.mayDo(Deed.MERGE_VENDORS);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say how you know that they are one.");
        }
        // both rows are locked, the lower first, so that two merges come one after the other
        Map<Long, Merge.Side> sides = jdbc
                .sql("""
                        SELECT v.id, v.number, v.name, v.currency, v.hold_reason, m.name AS became FROM vendor v
                        LEFT JOIN vendor m ON m.id = v.merged_into_id WHERE v.id IN (:ids) ORDER BY v.id FOR UPDATE
                        """)
                .param("ids", List.of(gone.value(), kept.value()))
                .query((r, n) -> new Merge.Side(
                        new VendorId(r.getLong("id")),
                        r.getString("number"),
                        r.getString("name"),
                        Currency.getInstance(r.getString("currency")),
                        r.getString("became"),
                        r.getString("hold_reason")))
                .list()
                .stream()
                .collect(java.util.stream.Collectors.toMap(side -> side.id().value(), side -> side));
        Merge merge = new Merge(side(sides, gone), side(sides, kept));
        merge.mustBePossible(
                count(
                        "SELECT COUNT(*) FROM reservation r JOIN invoice i ON i.id = r.invoice_id WHERE i.vendor_id = ?",
                        gone),
                count("SELECT COUNT(*) FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'", gone),
                jdbc.sql("SELECT g.reference FROM invoice g JOIN invoice k ON k.vendor_id = :kept AND k.kind = g.kind"
                                + " AND k.reference = g.reference WHERE g.vendor_id = :gone ORDER BY g.id LIMIT 10")
                        .param("gone", gone.value())
                        .param("kept", kept.value())
                        .query(String.class)
                        .list());
        jdbc.sql("CALL merge_vendor(:gone, :kept)")
                .param("gone", gone.value())
                .param("kept", kept.value())
                .update();
        changes.proposeAsTheyAre(
                by,
                kept,
                "came with " + merge.gone().number() + ", " + merge.gone().name());
        audit.record(
                by,
                "merge vendor",
                "vendor " + gone.value(),
                Map.of("into", merge.kept().number() + " " + merge.kept().name(), "why", why.strip()));
        audit.record(
                by,
                "take over vendor",
                "vendor " + kept.value(),
                Map.of("from", merge.gone().number() + " " + merge.gone().name(), "why", why.strip()));
    }

    private long count(String sql, VendorId vendor) {
        return jdbc.sql(sql).param(vendor.value()).query(Long.class).single();
    }

    private static Merge.Side side(Map<Long, Merge.Side> sides, VendorId id) {
        Merge.Side side = sides.get(id.value());
        if (side == null) {
            throw Refusal.notFound("no-vendor", "There is no such vendor. Choose one from the list.");
        }
        return side;
    }
}
