package leveltally.server.vendors;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Reads the proposed changes of vendors; bank details are masked. */
@Service
public class ChangeViews {
    private static final int MOST_WAITING = 500;

    private final JdbcClient jdbc;

    ChangeViews(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    private static final String TOLD = """
            SELECT c.id, c.vendor_id, v.name AS vendor, c.remit_to_id, c.what, c.before_payee, c.before_address, c.before_bank_mask,
              c.after_payee, c.after_address, c.after_bank_mask, c.why, c.proposed_by, p.name AS proposer, c.proposed_at, c.state,
              d.name AS decider, c.decided_at, c.decided_on, c.decided_why,
              c.after_bank_key <> '' AND c.after_bank_key <> c.before_bank_key AS bank_typed_again
            FROM vendor_change c JOIN vendor v ON v.id = c.vendor_id JOIN person p ON p.id = c.proposed_by
            LEFT JOIN person d ON d.id = c.decided_by
            """;

    /** What waits for a second person, oldest first. */
    @Transactional(readOnly = true)
    public List<ToldChange> waiting() {
        return jdbc.sql(TOLD + " WHERE c.state = 'PROPOSED' ORDER BY c.id LIMIT " + MOST_WAITING)
                .query((r, n) -> told(r))
                .list();
    }

    /** Everything that was ever proposed about a vendor, newest first. */
    @Transactional(readOnly = true)
    public List<ToldChange> of(VendorId vendor) {
        return jdbc.sql(TOLD + " WHERE c.vendor_id = ? ORDER BY c.id DESC")
                .param(vendor.value())
                .query((r, n) -> told(r))
                .list();
    }

    private static ToldChange told(java.sql.ResultSet r) throws java.sql.SQLException {
        Timestamp decided = r.getTimestamp("decided_at");
        return new ToldChange(
                r.getLong("id"),
                r.getLong("vendor_id"),
                r.getString("vendor"),
                r.getLong("remit_to_id"),
                r.getString("what"),
                lines(r.getString("before_payee"), r.getString("before_address")),
                r.getString("before_bank_mask"),
                lines(r.getString("after_payee"), r.getString("after_address")),
                r.getString("after_bank_mask"),
                r.getString("why"),
                r.getLong("proposed_by"),
                r.getString("proposer"),
                r.getTimestamp("proposed_at").toInstant(),
                r.getString("state"),
                r.getString("decider"),
                decided == null ? null : decided.toInstant(),
                r.getObject("decided_on", LocalDate.class),
                r.getString("decided_why"),
                r.getBoolean("bank_typed_again"));
    }

    private static List<String> lines(String payee, String address) {
        List<String> lines = new ArrayList<>();
        if (!payee.isEmpty()) {
            lines.add(payee);
            lines.addAll(List.of(address.split("\n")));
        }
        return lines;
    }
}
