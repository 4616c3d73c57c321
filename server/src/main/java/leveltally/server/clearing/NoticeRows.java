package leveltally.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.util.List;
import java.util.Optional;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The rows of what banks say of single payments afterwards. */
@Component
class NoticeRows {
    private static final int LONGEST_SAID = 400;

    private final JdbcClient jdbc;
    private final WorkIds ids;

    NoticeRows(JdbcClient jdbc, WorkIds ids) {
        this.jdbc = jdbc;
        this.ids = ids;
    }

    /** What a notice is about. */
    enum Kind {
        RETURNED,
        CHANGED
    }

    /**
     * One as it was told.
     *
     * @param names how the bank names the payment
     * @param words what it says, in words
     * @param minor what came back; null where nothing did
     * @param right the corrected account, sealed; null where nothing is corrected
     */
    record Told(
            Kind kind,
            String code,
            String names,
            String words,
            @Nullable Long payment,
            @Nullable Long minor,
            String currency,
            @Nullable String right) {}

    /** One that was told and is not dealt with. */
    record Waiting(long id, BankAccountId account, Told told) {}

    /** @return its id; empty where it was told before */
    Optional<Long> put(Actor by, BankAccountId account, Told told) {
        long id = ids.supply().next();
        int added = jdbc.sql("""
                        INSERT IGNORE INTO bank_notice (id, bank_account_id, kind, code, names, words, payment_id, amount_minor, currency,
                          right_sealed, state, said, read_on, read_at, read_by, version)
                        VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'WAITING', '', ?, ?, ?, 0)
                        """)
                .params(
                        id,
                        account.value(),
                        told.kind().name(),
                        told.code(),
                        told.names(),
                        told.words(),
                        told.payment(),
                        told.minor(),
                        told.currency(),
                        told.right(),
                        by.today(),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        return added == 0 ? Optional.empty() : Optional.of(id);
    }

    /** One that waits, with its row locked until the transaction ends; empty where somebody dealt with it. */
    Optional<Waiting> lock(long id) {
        return jdbc.sql(
                        "SELECT id, bank_account_id, kind, code, names, words, payment_id, amount_minor, currency, right_sealed"
                                + " FROM bank_notice WHERE id = ? AND state = 'WAITING' FOR UPDATE")
                .param(id)
                .query((r, n) -> waiting(r))
                .optional();
    }

    private static Waiting waiting(ResultSet r) throws SQLException {
        return new Waiting(
                r.getLong("id"),
                new BankAccountId(r.getLong("bank_account_id")),
                new Told(
                        Kind.valueOf(r.getString("kind")),
                        r.getString("code"),
                        r.getString("names"),
                        r.getString("words"),
                        r.getObject("payment_id", Long.class),
                        r.getObject("amount_minor", Long.class),
                        r.getString("currency"),
                        r.getString("right_sealed")));
    }

    List<Long> waiting(BankAccountId account) {
        return jdbc.sql(
                        "SELECT id FROM bank_notice WHERE bank_account_id = ? AND state = 'WAITING' ORDER BY id LIMIT 1000")
                .param(account.value())
                .query(Long.class)
                .list();
    }

    /** Nothing came of it yet, and why. */
    void stays(long id, String why) {
        jdbc.sql("UPDATE bank_notice SET said = ?, version = version + 1 WHERE id = ? AND state = 'WAITING'")
                .params(shortened(why), id)
                .update();
    }

    void done(Actor by, long id, String state, String said) {
        jdbc.sql("UPDATE bank_notice SET state = ?, said = ?, done_at = ?, done_by = ?, version = version + 1"
                        + " WHERE id = ? AND state = 'WAITING'")
                .params(
                        state,
                        shortened(said),
                        Timestamp.from(by.now()),
                        by.person().value(),
                        id)
                .update();
    }

    private static String shortened(String text) {
        return text.length() > LONGEST_SAID ? text.substring(0, LONGEST_SAID) : text;
    }
}
