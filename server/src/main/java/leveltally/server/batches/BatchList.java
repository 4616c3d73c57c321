package leveltally.server.batches;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Leaving;
import leveltally.core.batches.Purpose;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads the list of batches. */
@Component
class BatchList {
    private static final int MOST_LISTED = 300;

    private final JdbcClient jdbc;
    private final CsvLists lists;

    BatchList(JdbcClient jdbc, CsvLists lists) {
        this.jdbc = jdbc;
        this.lists = lists;
    }

    /** Batches in any of the states, newest first. */
    List<ListedView> in(Collection<BatchState> states) {
        return jdbc.sql("""
                        SELECT b.id, b.name, a.name AS account, b.state, a.currency, b.check_date, p.name AS who,
                          b.changed_at, b.sent_at, b.sent_back_reason, b.purpose, b.method,
                          (SELECT COUNT(*) FROM standing_claim c WHERE c.batch_id = b.id) AS claims,
                          (SELECT COALESCE(SUM(c.amount_minor), 0) FROM standing_claim c WHERE c.batch_id = b.id) AS amount,
                          (SELECT COUNT(*) FROM payment y WHERE y.batch_id = b.id AND y.posted_entry_id IS NOT NULL) AS posted
                        FROM batch b JOIN bank_account a ON a.id = b.bank_account_id JOIN person p ON p.id = b.prepared_by
                        WHERE b.state IN (:states) ORDER BY b.id DESC LIMIT :limit
                        """)
                .param("states", states.stream().map(Enum::name).toList())
                .param("limit", MOST_LISTED)
                .query((r, n) -> {
                    PaymentMethod by = PaymentMethod.valueOf(r.getString("method"));
                    Leaving leaves = Leaving.of(by, Purpose.valueOf(r.getString("purpose")));
                    BatchState s = BatchState.valueOf(r.getString("state"));
                    var sent = r.getTimestamp("sent_at");
                    return new ListedView(
                            r.getLong("id"),
                            r.getString("name"),
                            r.getString("account"),
                            s.name(),
                            leaves.inWords(s),
                            s.isPartlyPosted(r.getInt("posted")),
                            leaves,
                            by.words(),
                            r.getInt("claims"),
                            MoneyView.of(r.getLong("amount"), r.getString("currency")),
                            r.getObject("check_date", LocalDate.class),
                            r.getString("who"),
                            r.getTimestamp("changed_at").toInstant(),
                            sent == null ? null : sent.toInstant(),
                            r.getString("sent_back_reason"));
                })
                .list();
    }

    /** All of them. */
    ResponseEntity<Resource> csv() {
        return lists.of("batches.csv", """
                SELECT b.id, b.name, LOWER(b.state) AS state, a.name AS account, b.check_date, b.ledger_date,
                  p.name AS prepared_by, a.currency, (SELECT COUNT(*) FROM standing_claim c WHERE c.batch_id = b.id) AS claims,
                  (SELECT COALESCE(SUM(c.amount_minor), 0) FROM standing_claim c WHERE c.batch_id = b.id) AS amount_minor
                FROM batch b JOIN bank_account a ON a.id = b.bank_account_id JOIN person p ON p.id = b.prepared_by
                ORDER BY b.id DESC
                """, Map.of());
    }
}
