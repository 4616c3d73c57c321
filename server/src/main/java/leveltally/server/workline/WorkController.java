package leveltally.server.workline;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How much waits at each station, and the search over everything. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class WorkController {
    /** Due counts what falls due within a week. */
    static final int DUE_WITHIN_DAYS = 7;

    private static final int MOST_FOUND = 6;

    private final JdbcClient jdbc;

    WorkController(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Schema(requiredProperties = {"station", "count", "amounts"})
    record StationView(String station, int count, List<MoneyView> amounts) {}

    /** {@code currency} is the main account's: amounts of it need no code beside them. */
    @Schema(requiredProperties = {"today", "currency", "stations"})
    record WorkView(LocalDate today, String currency, List<StationView> stations) {}

    @Schema(requiredProperties = {"kind", "title", "detail", "address"})
    record FoundView(String kind, String title, String detail, String address) {}

    /** One statement per station; amounts per currency, the main account's first, never added across. */
    @GetMapping("/work")
    WorkView work(Actor by) {
        by.mayDo(Deed.READ);
        Map<String, String> stations = new LinkedHashMap<>();
        stations.put("due", """
                SELECT i.currency, COUNT(*), SUM(i.open_minor) FROM invoice i
                LEFT JOIN reservation r ON r.invoice_id = i.id
                WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.due_date <= :until AND r.invoice_id IS NULL
                GROUP BY i.currency
                """);
        stations.put("batches", batchesIn("'DRAFT'"));
        stations.put("approval", batchesIn("'IN_APPROVAL'"));
        stations.put("print", """
                SELECT c.currency, COUNT(*), SUM(c.amount_minor) FROM standing_claim c JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN check_number n ON n.live_payment_id = p.id
                WHERE b.state IN ('APPROVED', 'NUMBERED') AND b.method = 'CHECK' AND p.posted_entry_id IS NULL
                  AND (n.id IS NULL OR n.state = 'TAKEN') GROUP BY c.currency
                """);
        stations.put("post", """
                SELECT p.currency, COUNT(*), SUM(p.amount_minor) FROM payment p
                JOIN check_number n ON n.live_payment_id = p.id AND n.state = 'PRINTED'
                WHERE p.posted_entry_id IS NULL AND p.standing GROUP BY p.currency
                """);
        stations.put("bank", """
                -- issues and voids are never added
                SELECT currency, COUNT(*), SUM(CASE WHEN kind = 'ISSUE' THEN amount_minor ELSE 0 END) FROM bank_event
                WHERE file_id IS NULL AND never_reported IS NULL GROUP BY currency
                """);
        String main = jdbc.sql("SELECT currency FROM bank_account ORDER BY position LIMIT 1")
                .query(String.class)
                .optional()
                .orElse("");
        List<StationView> views = new ArrayList<>();
        stations.forEach((station, sql) -> views.add(station(station, sql, main, by.today())));
        return new WorkView(by.today(), main, views);
    }

    private static String batchesIn(String state) {
        return """
                SELECT a.currency, COUNT(DISTINCT b.id), COALESCE(SUM(c.amount_minor), 0) FROM batch b
                JOIN bank_account a ON a.id = b.bank_account_id LEFT JOIN standing_claim c ON c.batch_id = b.id
                WHERE b.state = %s GROUP BY a.currency
                """.formatted(state);
    }

    private StationView station(String station, String sql, String main, LocalDate today) {
        int[] count = new int[1];
        var statement = jdbc.sql(sql);
        if (sql.contains(":until")) {
            statement = statement.param("until", today.plusDays(DUE_WITHIN_DAYS));
        }
        List<MoneyView> amounts = new ArrayList<>(statement
                .query((r, n) -> {
                    count[0] += r.getInt(2);
                    return MoneyView.of(r.getLong(3), r.getString(1));
                })
                .list());
        amounts.sort(
                java.util.Comparator.comparing((MoneyView m) -> !m.currency().equals(main))
                        .thenComparing(MoneyView::currency));
        return new StationView(station, count[0], amounts);
    }

    /** Vendors, invoices, checks and batches that hold the text. */
    @GetMapping("/search")
    List<FoundView> search(Actor by, @RequestParam String text) {
        by.mayDo(Deed.READ);
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
