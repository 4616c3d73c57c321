package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What stands in the way of a claim: holds, and vendors whose data is not what was frozen. */
@Service
public class Obstacles {
    private final EntityManager entities;
    private final JdbcClient jdbc;

    Obstacles(EntityManager entities, JdbcClient jdbc) {
        this.entities = entities;
        this.jdbc = jdbc;
    }

    /**
     * Why these claims may not go on now: holds of their vendors and invoices, and vendors whose data is not what was
     * frozen, each named. The rows are shared until the transaction ends, so that no hold and no change slips in between.
     */
    @Transactional
    public Map<ClaimId, List<String>> shared(Collection<ClaimId> claims) {
        entities.flush();
        return claims.isEmpty()
                ? Map.of()
                : found("c.id IN (:claims)", claims.stream().map(ClaimId::value).toList(), "LOCK IN SHARE MODE");
    }

    /** The same of every claim of a batch, to be shown; claims that may go on are missing. */
    @Transactional(readOnly = true)
    public Map<ClaimId, List<String>> of(BatchId id) {
        return found("c.batch_id = :claims", id.value(), "");
    }

    private Map<ClaimId, List<String>> found(String which, Object claims, String lock) {
        Map<ClaimId, List<String>> found = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT c.payee, v.hold_reason AS vendor_held, l.reference, i.hold_reason AS invoice_held,
                          c.digest IS NOT NULL AND (BINARY t.payee <> BINARY c.payee OR BINARY t.address <> BINARY c.address) AS address_differs,
                          c.digest IS NOT NULL AND t.bank_key <> c.bank_key AS bank_differs, c.id
                        FROM claim c JOIN vendor v ON v.id = c.vendor_id JOIN remit_to t ON t.id = c.remit_to_id
                        JOIN claim_line l ON l.claim_id = c.id LEFT JOIN invoice i ON i.id = l.invoice_id
                        WHERE
                        """ + which + " ORDER BY c.payee, c.id, l.id " + lock)
                .param("claims", claims)
                .query((java.sql.ResultSet r) -> {
                    String words = obstacle(
                            r.getString("vendor_held"),
                            r.getString("reference"),
                            r.getString("invoice_held"),
                            r.getBoolean("address_differs"),
                            r.getBoolean("bank_differs"));
                    List<String> own = found.computeIfAbsent(new ClaimId(r.getLong("id")), none -> new ArrayList<>());
                    if (!words.isEmpty() && !own.contains(words)) {
                        own.add(words);
                    }
                });
        found.values().removeIf(List::isEmpty);
        return found;
    }

    private static String obstacle(
            @Nullable String vendorHeld, String reference, @Nullable String held, boolean moved, boolean rebanked) {
        if (vendorHeld != null) {
            return "the vendor is held, " + vendorHeld;
        }
        if (held != null) {
            return "invoice " + reference + " is held, " + held;
        }
        if (moved || rebanked) {
            return "its " + (moved ? "address" : "bank details") + " changed after the payment was sent for approval";
        }
        return "";
    }
}
