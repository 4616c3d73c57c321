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
            SELECT c.id, c.vendor_id, v.name, c.remit_to_id, c.what, c.before_payee, c.before_address, c.before_bank_mask,
              c.after_payee, c.after_address, c.after_bank_mask, c.why, c.proposed_by, p.name, c.proposed_at, c.state,
              d.name, c.decided_at, c.decided_on, c.decided_why,
              c.after_bank_key <> '' AND c.after_bank_key <> c.before_bank_key
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
        Timestamp decided = r.getTimestamp(18);
        return new ToldChange(
                r.getLong(1),
                r.getLong(2),
                r.getString(3),
                r.getLong(4),
                r.getString(5),
                lines(r.getString(6), r.getString(7)),
                r.getString(8),
                lines(r.getString(9), r.getString(10)),
                r.getString(11),
                r.getString(12),
                r.getLong(13),
                r.getString(14),
                r.getTimestamp(15).toInstant(),
                r.getString(16),
                r.getString(17),
                decided == null ? null : decided.toInstant(),
                r.getObject(19, LocalDate.class),
                r.getString(20),
                r.getBoolean(21));
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
