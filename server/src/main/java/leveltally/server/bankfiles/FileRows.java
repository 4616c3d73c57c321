package leveltally.server.bankfiles;

import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads the files made for the bank. */
@Component
class FileRows {
    private final JdbcClient jdbc;

    FileRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The newest positive pay files of an account. */
    List<FileView> of(BankAccountId account) {
        Map<Long, List<FileView.RefusedView>> refused = refused(account);
        return jdbc.sql("""
                        SELECT f.id, f.serial, f.file_name, f.made_at, p.name AS made_by, f.items, f.total_minor, f.currency,
                          f.state, f.answer_note, f.content_hash, g.serial AS follows, f.voids, f.void_minor, f.anew, f.narrowed
                        FROM bank_file f JOIN person p ON p.id = f.made_by LEFT JOIN bank_file g ON g.id = f.follows_id
                        WHERE f.bank_account_id = :account AND f.purpose = :purpose ORDER BY f.serial DESC LIMIT 200
                        """)
                .param("account", account.value())
                .param("purpose", FilePurpose.POSITIVE_PAY.name())
                .query((r, n) -> {
                    String currency = r.getString("currency");
                    int voids = r.getInt("voids");
                    return new FileView(
                            r.getLong("id"),
                            r.getLong("serial"),
                            r.getString("file_name"),
                            r.getTimestamp("made_at").toInstant(),
                            r.getString("made_by"),
                            r.getInt("items") - voids,
                            MoneyView.of(r.getLong("total_minor"), currency),
                            voids,
                            MoneyView.of(r.getLong("void_minor"), currency),
                            r.getString("state"),
                            r.getString("answer_note"),
                            r.getString("content_hash"),
                            r.getObject("follows", Long.class),
                            r.getBoolean("anew"),
                            r.getString("narrowed"),
                            refused.getOrDefault(r.getLong("id"), List.of()));
                })
                .list();
    }

    /** What the bank refused of files it took, the newest first. */
    private Map<Long, List<FileView.RefusedView>> refused(BankAccountId account) {
        Map<Long, List<FileView.RefusedView>> found = new HashMap<>();
        jdbc.sql("""
                        SELECT x.file_id, CONCAT(s.prefix, n.number) AS number, e.kind, x.refused_why FROM bank_file_item x
                        JOIN bank_file f ON f.id = x.file_id JOIN bank_event e ON e.id = x.event_id
                        JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                        WHERE f.bank_account_id = :account AND x.refused_why IS NOT NULL ORDER BY x.file_id DESC, x.position LIMIT 1000
                        """).param("account", account.value()).query((ResultSet r) -> {
            found.computeIfAbsent(r.getLong("file_id"), none -> new ArrayList<>())
                    .add(new FileView.RefusedView(
                            r.getString("number"), r.getString("kind"), r.getString("refused_why")));
        });
        return found;
    }
}
