package leveltally.server.electronic;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.electronic.FilingView.PaymentFileView;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads files of payments, the newest first. */
@Component
class PaymentFileRows {
    private static final String FILES = """
            SELECT f.id, f.serial, f.file_name, f.made_at, p.name AS made_by, f.items, f.total_minor, f.currency, f.pays_on,
              f.state, f.answer_note, g.serial AS follows,
              (SELECT COUNT(*) FROM announcement z WHERE z.file_id = f.id) AS announced, h.at AS handed_at, q.name AS handed_by,
              w.name AS way_name, b.id AS batch_id, b.name AS batch_name
            FROM bank_file f JOIN way_to_pay w ON w.id = f.way_id JOIN person p ON p.id = f.made_by
            LEFT JOIN payment y ON y.id = (SELECT MIN(x.payment_id) FROM bank_file_item x WHERE x.file_id = f.id)
            LEFT JOIN announcement n ON n.id = (SELECT MIN(z.id) FROM announcement z WHERE z.file_id = f.id)
            JOIN batch b ON b.id = COALESCE(y.batch_id, n.batch_id)
            LEFT JOIN bank_file g ON g.id = f.follows_id
            LEFT JOIN bank_file_handing h ON h.id = (SELECT MAX(z.id) FROM bank_file_handing z WHERE z.file_id = f.id)
            LEFT JOIN person q ON q.id = h.person_id
            """;

    private final JdbcClient jdbc;

    PaymentFileRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A file as it stands among those of its account. */
    record ListedFile(PaymentFileView file, String currency, String way, long batch, String batchName) {}

    /** Those that ever carried payments of a batch. */
    List<PaymentFileView> ofBatch(BatchId id) {
        return jdbc.sql(FILES
                        + " WHERE f.id IN (SELECT x.file_id FROM payment c JOIN bank_file_item x ON x.payment_id = c.id"
                        + " WHERE c.batch_id = ?) OR f.id IN (SELECT a.file_id FROM announcement a WHERE a.batch_id = ?)"
                        + " ORDER BY f.id DESC")
                .params(id.value(), id.value())
                .query((r, n) -> view(r))
                .list();
    }

    /**
     * Those of an account, whatever way of it they go; what the bank has not answered is always among them.
     *
     * @param most how many of the answered ones
     */
    List<ListedFile> ofAccount(BankAccountId id, int most) {
        return jdbc.sql(FILES + """
                         WHERE f.bank_account_id = :account AND (f.state = 'MADE' OR f.id IN (
                          SELECT a.id FROM (SELECT z.id FROM bank_file z WHERE z.bank_account_id = :account AND z.way_id IS NOT NULL
                            ORDER BY z.id DESC LIMIT :most) a))
                        ORDER BY f.id DESC
                        """)
                .param("account", id.value())
                .param("most", most)
                .query((r, n) -> new ListedFile(
                        view(r),
                        r.getString("currency"),
                        r.getString("way_name"),
                        r.getLong("batch_id"),
                        r.getString("batch_name")))
                .list();
    }

    private static PaymentFileView view(ResultSet r) throws SQLException {
        FileState state = FileState.valueOf(r.getString("state"));
        Timestamp handed = r.getTimestamp("handed_at");
        return new PaymentFileView(
                r.getLong("id"),
                r.getLong("serial"),
                r.getString("file_name"),
                r.getTimestamp("made_at").toInstant(),
                r.getString("made_by"),
                r.getInt("items"),
                r.getInt("announced"),
                MoneyView.of(r.getLong("total_minor"), r.getString("currency")).text(),
                r.getObject("pays_on", LocalDate.class),
                state,
                state.words(),
                r.getString("answer_note"),
                r.getObject("follows", Long.class),
                handed == null ? null : handed.toInstant(),
                r.getString("handed_by"));
    }
}
