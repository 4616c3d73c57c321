package leveltally.server.workline;

import java.util.ArrayList;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The search over everything. */
@Component
class Search {
    private static final int MOST_FOUND = 6;

    private final JdbcClient jdbc;

    Search(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Vendors, invoices, checks and batches that hold the text. */
    List<FoundView> holding(String text) {
        String wanted = text.strip();
        if (wanted.length() < 2) {
            return List.of();
        }
        String like = "%" + wanted.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        List<FoundView> found = new ArrayList<>();
        found.addAll(jdbc.sql("SELECT id, name, state FROM batch WHERE name LIKE :like ORDER BY id DESC LIMIT :most")
                .param("like", like)
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Batch",
                        r.getString(2),
                        r.getString(3).toLowerCase(java.util.Locale.ROOT).replace('_', ' '),
                        "/batches/" + r.getLong(1)))
                .list());
        found.addAll(jdbc.sql("""
                        SELECT n.id, n.number, n.state, COALESCE(p.payee, ''), n.series_id FROM check_register n
                        LEFT JOIN payment p ON p.id = n.payment_id
                        WHERE CAST(n.number AS CHAR) LIKE :start ORDER BY n.number DESC LIMIT :most
                        """)
                .param("start", like.substring(1))
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Check",
                        r.getString(2),
                        r.getString(3).toLowerCase(java.util.Locale.ROOT) + " · " + r.getString(4),
                        "/register?series=" + r.getLong(5) + "&check=" + r.getLong(1)))
                .list());
        found.addAll(jdbc.sql("SELECT id, name, number FROM vendor WHERE name LIKE :like ORDER BY name LIMIT :most")
                .param("like", like)
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView("Vendor", r.getString(2), r.getString(3), "/vendors/" + r.getLong(1)))
                .list());
        found.addAll(jdbc.sql("""
                        SELECT i.id, i.reference, v.name, v.id, i.open_minor, i.currency, b.id, b.name FROM invoice i
                        JOIN vendor v ON v.id = i.vendor_id LEFT JOIN reservation r ON r.invoice_id = i.id
                        LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.reference LIKE :like ORDER BY i.is_open DESC, i.due_date LIMIT :most
                        """)
                .param("like", like)
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Invoice",
                        r.getString(2),
                        r.getString(3) + " · open "
                                + MoneyView.of(r.getLong(5), r.getString(6)).text()
                                + (r.getString(8) == null ? "" : " · in " + r.getString(8)),
                        r.getString(8) == null
                                ? "/vendors/" + r.getLong(4) + "?show=" + (r.getLong(5) > 0 ? "OPEN" : "SETTLED")
                                        + "&at=" + r.getLong(1)
                                : "/batches/" + r.getLong(7) + "?at=" + r.getLong(1)))
                .list());
        return found;
    }
}
