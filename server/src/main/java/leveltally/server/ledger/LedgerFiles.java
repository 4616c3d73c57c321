package leveltally.server.ledger;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Hands entries to the company's general ledger: each stands in one file, which is taken there or taken back whole. */
@Service
public class LedgerFiles {
    private static final int MOST_LISTED = 200;
    private static final int AT_ONCE = 1_000;

    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final CsvLists lists;
    private final AuditTrail audit;

    LedgerFiles(JdbcClient jdbc, JdbcTemplate plain, CsvLists lists, AuditTrail audit) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.lists = lists;
        this.audit = audit;
    }

    @Transactional(readOnly = true)
    LedgerFilesView all(Actor by) {
        by.mayDo(Deed.READ);
        record Waiting(
                int entries,
                @Nullable LocalDate from,
                @Nullable LocalDate to) {}
        Waiting waiting = jdbc.sql("SELECT COUNT(*) AS entries, MIN(e.ledger_date) AS first, MAX(e.ledger_date) AS last"
                        + " FROM waiting_entry w JOIN journal_entry e ON e.id = w.entry_id")
                .query((r, n) -> new Waiting(
                        r.getInt("entries"),
                        r.getObject("first", LocalDate.class),
                        r.getObject("last", LocalDate.class)))
                .single();
        Map<Long, List<MoneyView>> debits = new HashMap<>();
        jdbc.sql("""
                        SELECT COALESCE(f.id, 0) AS file, l.currency, SUM(l.debit_minor) AS debit_minor
                        FROM (SELECT id FROM ledger_file ORDER BY id DESC LIMIT :most) f
                        JOIN ledger_file_entry x ON x.file_id = f.id JOIN journal_line l ON l.entry_id = x.entry_id
                        GROUP BY f.id, l.currency
                        UNION ALL SELECT 0, l.currency, SUM(l.debit_minor)
                        FROM waiting_entry w JOIN journal_line l ON l.entry_id = w.entry_id GROUP BY l.currency
                        """).param("most", MOST_LISTED).query((java.sql.ResultSet r) -> {
            debits.computeIfAbsent(r.getLong("file"), none -> new ArrayList<>())
                    .add(MoneyView.of(r.getLong("debit_minor"), r.getString("currency")));
        });
        List<LedgerFilesView.LedgerFileView> files = jdbc.sql("""
                        SELECT f.id, f.up_to, f.state, f.made_at, f.answered_at, f.why, m.name AS made_by, a.name AS answered_by,
                          (SELECT COUNT(*) FROM ledger_file_entry x WHERE x.file_id = f.id) AS entries
                        FROM ledger_file f JOIN person m ON m.id = f.made_by LEFT JOIN person a ON a.id = f.answered_by
                        ORDER BY f.id DESC LIMIT :most
                        """)
                .param("most", MOST_LISTED)
                .query((r, n) -> {
                    LedgerFileState state = LedgerFileState.valueOf(r.getString("state"));
                    return new LedgerFilesView.LedgerFileView(
                            r.getLong("id"),
                            r.getObject("up_to", LocalDate.class),
                            state.name(),
                            state.words(),
                            r.getInt("entries"),
                            debits.getOrDefault(r.getLong("id"), List.of()),
                            r.getString("made_by"),
                            r.getTimestamp("made_at").toInstant(),
                            r.getString("answered_by"),
                            instant(r.getTimestamp("answered_at")),
                            r.getString("why"));
                })
                .list();
        return new LedgerFilesView(
                waiting.entries(), waiting.from(), waiting.to(), debits.getOrDefault(0L, List.of()), files);
    }

    private static @Nullable Instant instant(@Nullable Timestamp at) {
        return at == null ? null : at.toInstant();
    }

    /**
     * Puts all waiting entries up to a ledger date into a file.
     *
     * @throws Refusal when none waits
     */
    @Transactional
    public long make(Actor by, LocalDate upTo) {
        by.mayDo(Deed.HAND_OVER_LEDGER);
        // whoever hands over at the same time waits here, and finds nothing left
        List<Long> entries = jdbc.sql("SELECT w.entry_id FROM waiting_entry w JOIN journal_entry e ON e.id = w.entry_id"
                        + " WHERE e.ledger_date <= ? ORDER BY w.entry_id FOR UPDATE")
                .param(upTo)
                .query(Long.class)
                .list();
        if (entries.isEmpty()) {
            throw Refusal.conflict(
                    "nothing-waits",
                    "No entry up to " + Dates.inWords(upTo) + " waits to be handed over. Choose a later day, or look at"
                            + " the files there are.");
        }
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO ledger_file (up_to, made_at, made_by) VALUES (?, ?, ?)")
                .params(upTo, Timestamp.from(by.now()), by.person().value())
                .update(key);
        long id = java.util.Objects.requireNonNull(key.getKey()).longValue();
        plain.batchUpdate(
                "INSERT INTO ledger_file_entry (file_id, entry_id) VALUES (?, ?)", entries, AT_ONCE, (row, entry) -> {
                    row.setLong(1, id);
                    row.setLong(2, entry);
                });
        audit.record(
                by,
                "hand entries over",
                "ledger file " + id,
                Map.of("entries", entries.size(), "up to", upTo.toString()));
        return id;
    }

    /** The general ledger took a file; it stays as it is. */
    @Transactional
    public void taken(Actor by, long id) {
        answer(by, id, LedgerFileState.TAKEN, "");
    }

    /** A file was not taken, or is wrong: its entries wait again. */
    @Transactional
    public void takeBack(Actor by, long id, String why) {
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why it is taken back.");
        }
        answer(by, id, LedgerFileState.TAKEN_BACK, why.strip());
    }

    private void answer(Actor by, long id, LedgerFileState now, String why) {
        by.mayDo(Deed.HAND_OVER_LEDGER);
        int changed = jdbc.sql("UPDATE ledger_file SET state = ?, answered_at = ?, answered_by = ?, why = ?"
                        + " WHERE id = ? AND state = ?")
                .params(now.name(), Timestamp.from(by.now()), by.person().value(), why, id, LedgerFileState.MADE.name())
                .update();
        if (changed == 0) {
            LedgerFileState state = state(id);
            throw Refusal.conflict(
                    "file-answered",
                    "File " + id + " is " + state.words() + " already, and that stands. Look at the list again.");
        }
        audit.record(by, "answer for ledger file", "ledger file " + id, Map.of("answer", now.words(), "why", why));
    }

    private LedgerFileState state(long id) {
        return LedgerFileState.valueOf(jdbc.sql("SELECT state FROM ledger_file WHERE id = ?")
                .param(id)
                .query(String.class)
                .optional()
                .orElseThrow(() -> Refusal.notFound(
                        "no-ledger-file", "There is no such file of the ledger. Choose one from the list.")));
    }

    /** Its lines; what was taken back is handed over in another file, so it is not given again. */
    ResponseEntity<Resource> csv(Actor by, long id) {
        by.mayDo(Deed.READ);
        if (state(id) == LedgerFileState.TAKEN_BACK) {
            throw Refusal.conflict(
                    "file-taken-back", "File " + id + " was taken back; its entries go into another one. Take that.");
        }
        return lists.of("ledger-file-" + id + ".csv", """
                SELECT x.file_id AS file, e.id AS entry, e.ledger_date, LOWER(e.kind) AS kind, e.text, a.code AS account,
                  a.name AS account_name, l.debit_minor, l.credit_minor, l.currency, e.batch_id AS batch,
                  e.payment_id AS payment, e.invoice_id AS document, e.reverses_id AS reverses
                FROM ledger_file_entry x JOIN journal_entry e ON e.id = x.entry_id JOIN journal_line l ON l.entry_id = e.id
                JOIN ledger_account a ON a.id = l.account_id
                WHERE x.file_id = :file ORDER BY e.ledger_date, e.id, l.id
                """, Map.of("file", id));
    }
}
