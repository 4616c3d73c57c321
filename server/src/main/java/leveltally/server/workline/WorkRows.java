package leveltally.server.workline;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.checks.NumberState;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.direct.ScheduleViews;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads how much waits at each station. */
@Component
class WorkRows {
    /** Due counts what falls due within a week. */
    static final int DUE_WITHIN_DAYS = 7;

    private final JdbcClient jdbc;
    private final ScheduleViews schedules;

    WorkRows(JdbcClient jdbc, ScheduleViews schedules) {
        this.schedules = schedules;
        this.jdbc = jdbc;
    }

    /** One statement per station, and one for what needs a look; amounts per currency, the main account's first, never added across. */
    WorkView of(LocalDate today) {
        Map<String, String> counted = Map.of(
                "due",
                "Invoices of every account due by " + Dates.inWords(today.plusDays(DUE_WITHIN_DAYS))
                        + " and in no batch, with what is open of them; what one run takes is its sentence's",
                "batches",
                "Drafts, with what they pay",
                "approval",
                "Batches that wait for an answer",
                "print",
                "Payments approved, and not on paper, in a file or ordered yet",
                "post",
                "Checks that came out well, payments by file that the bank took, wires it confirmed, and payments made elsewhere that are agreed to: not in the ledger yet",
                "bank",
                "Checks and voids in no file yet, with the amount of the checks; late is what the bank has not heard of and may be asked to pay");
        Map<String, String> stations = new LinkedHashMap<>();
        stations.put("due", """
                SELECT i.currency, COUNT(*) AS items, SUM(i.open_minor) AS amount_minor FROM invoice i
                LEFT JOIN reservation r ON r.invoice_id = i.id
                WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.due_date <= :until AND r.invoice_id IS NULL
                GROUP BY i.currency
                """);
        stations.put("batches", batchesIn(BatchState.DRAFT));
        stations.put("approval", batchesIn(BatchState.IN_APPROVAL));
        stations.put("print", """
                SELECT x.currency, SUM(x.items) AS items, SUM(x.amount_minor) AS amount_minor FROM (
                SELECT c.currency, COUNT(*) AS items, SUM(c.amount_minor) AS amount_minor FROM standing_claim c JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN check_number n ON n.live_payment_id = p.id
                WHERE b.state IN ('%1$s', '%2$s') AND b.method = '%3$s' AND b.purpose <> '%4$s' AND p.posted_entry_id IS NULL
                  AND (n.id IS NULL OR n.state = '%5$s') GROUP BY c.currency
                UNION ALL SELECT c.currency, COUNT(*), SUM(c.amount_minor) FROM standing_claim c JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN electronic_item i ON i.payment_id = p.id
                WHERE b.state IN ('%1$s', '%6$s') AND b.method IN (%7$s) AND b.purpose <> '%4$s' AND p.posted_entry_id IS NULL
                  AND i.file_id IS NULL GROUP BY c.currency
                UNION ALL SELECT c.currency, COUNT(*), SUM(c.amount_minor) FROM standing_claim c JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN wire_order w ON w.payment_id = p.id
                WHERE b.state IN ('%1$s', '%6$s') AND b.method = '%8$s' AND b.purpose <> '%4$s' AND p.posted_entry_id IS NULL
                  AND w.bank_reference IS NULL GROUP BY c.currency) x GROUP BY x.currency
                """.formatted(
                        BatchState.APPROVED,
                        BatchState.NUMBERED,
                        PaymentMethod.CHECK,
                        Purpose.OUTSIDE,
                        NumberState.TAKEN,
                        BatchState.FILED,
                        electronic(),
                        PaymentMethod.WIRE));
        stations.put(
                "post", """
                SELECT x.currency, SUM(x.items) AS items, SUM(x.amount_minor) AS amount_minor FROM (
                  SELECT p.currency, COUNT(*) AS items, SUM(p.amount_minor) AS amount_minor FROM payment p
                  JOIN check_number n ON n.live_payment_id = p.id AND n.state = '%s'
                  WHERE p.posted_entry_id IS NULL AND p.standing GROUP BY p.currency
                  UNION ALL SELECT p.currency, COUNT(*), SUM(p.amount_minor) FROM electronic_item i
                  JOIN payment p ON p.id = i.payment_id AND p.posted_entry_id IS NULL AND p.standing
                  JOIN bank_file f ON f.id = i.file_id AND f.state = '%s' GROUP BY p.currency
                  UNION ALL SELECT p.currency, COUNT(*), SUM(p.amount_minor) FROM wire_order w
                  JOIN payment p ON p.id = w.payment_id AND p.posted_entry_id IS NULL AND p.standing
                  WHERE w.bank_reference IS NOT NULL GROUP BY p.currency
                  -- what was made elsewhere is posted once it is agreed to
                  UNION ALL SELECT c.currency, COUNT(*), SUM(c.amount_minor) FROM batch b
                  JOIN standing_claim c ON c.batch_id = b.id WHERE b.purpose = '%s' AND b.state = '%s' GROUP BY c.currency) x
                GROUP BY x.currency
                """.formatted(NumberState.PRINTED, FileState.ACCEPTED, Purpose.OUTSIDE, BatchState.APPROVED));
        stations.put("bank", """
                -- issues and voids are never added
                SELECT currency, COUNT(*) AS items, SUM(CASE WHEN kind = '%s' THEN amount_minor ELSE 0 END) AS amount_minor FROM bank_event
                WHERE file_id IS NULL AND never_reported IS NULL GROUP BY currency
                """.formatted(BankFile.Item.Kind.ISSUE));
        String main = jdbc.sql("SELECT currency FROM bank_account ORDER BY position LIMIT 1")
                .query(String.class)
                .optional()
                .orElse("");
        List<WorkView.StationView> views = new ArrayList<>();
        int again = schedules.waiting(today.plusDays(DUE_WITHIN_DAYS));
        Map<String, String> looks = Map.of("bank", atTheBank(today), "due", again == 0 ? "" : again + " by schedule");
        stations.forEach((station, sql) ->
                views.add(station(station, counted.get(station), sql, main, today, looks.getOrDefault(station, ""))));
        return new WorkView(today, main, views);
    }

    /**
     * Checks that are out and the bank has not heard of, what it moved and nobody has answered, files of it that nobody read,
     * files for it that did not go, and those that pay of which nobody knows whether it took them.
     */
    private String atTheBank(LocalDate today) {
        return jdbc.sql("""
                        SELECT (SELECT COUNT(*) FROM bank_event WHERE file_id IS NULL AND never_reported IS NULL
                            AND event_date < :today) AS late,
                          (SELECT COUNT(*) FROM bank_movement WHERE is_open = 1)
                            + (SELECT COUNT(*) FROM bank_notice WHERE state = 'WAITING') AS to_answer,
                          (SELECT COUNT(*) FROM bank_incoming WHERE state = 'WAITING') AS to_read,
                          (SELECT COUNT(*) FROM bank_sending s JOIN bank_file f ON f.id = s.file_id AND f.state = 'MADE'
                            WHERE s.state IN ('STUCK', 'UNKNOWN')) AS not_sent,
                          (SELECT COUNT(*) FROM bank_file WHERE purpose = :electronic AND state = :made) AS not_known
                        """)
                .param("today", today)
                .param("electronic", FilePurpose.ELECTRONIC.name())
                .param("made", FileState.MADE.name())
                .query((r, n) -> Stream.of("not_sent", "not_known", "late", "to_read", "to_answer")
                        .filter(column -> at(r, column) > 0)
                        .map(column -> at(r, column) + " " + column.replace('_', ' '))
                        .collect(Collectors.joining(", ")))
                .single();
    }

    private static String electronic() {
        return Stream.of(PaymentMethod.values())
                .filter(PaymentMethod::isElectronic)
                .map(method -> "'" + method + "'")
                .collect(Collectors.joining(", "));
    }

    private static int at(ResultSet r, String column) {
        try {
            return r.getInt(column);
        } catch (SQLException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private static String batchesIn(BatchState state) {
        return """
                SELECT a.currency, COUNT(DISTINCT b.id) AS items, COALESCE(SUM(c.amount_minor), 0) AS amount_minor FROM batch b
                JOIN bank_account a ON a.id = b.bank_account_id LEFT JOIN standing_claim c ON c.batch_id = b.id
                WHERE b.state = '%s' GROUP BY a.currency
                """.formatted(state.name());
    }

    private WorkView.StationView station(
            String station, String counted, String sql, String main, LocalDate today, String look) {
        int[] count = new int[1];
        var statement = jdbc.sql(sql);
        if (sql.contains(":until")) {
            statement = statement.param("until", today.plusDays(DUE_WITHIN_DAYS));
        }
        List<MoneyView> amounts = new ArrayList<>(statement
                .query((r, n) -> {
                    count[0] += r.getInt("items");
                    return MoneyView.of(r.getLong("amount_minor"), r.getString("currency"));
                })
                .list());
        amounts.sort(
                java.util.Comparator.comparing((MoneyView m) -> !m.currency().equals(main))
                        .thenComparing(MoneyView::currency));
        return new WorkView.StationView(station, counted, count[0], amounts, look);
    }
}
