package leveltally.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.sql.Types;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The rows of what banks say of single payments afterwards. */
@Component
class NoticeRows {
    private static final int LONGEST_SAID = 400;

    private static final int AT_ONCE = 1_000;

    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final WorkIds ids;

    NoticeRows(JdbcClient jdbc, JdbcTemplate plain, WorkIds ids) {
        this.jdbc = jdbc;
        this.plain = plain;
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

    /** @return the ids of those that were not told before */
    List<Long> put(Actor by, BankAccountId account, List<Told> told) {
        List<Long> fresh = new ArrayList<>();
        WorkIds.Supply supply = ids.supply();
        for (int from = 0; from < told.size(); from += AT_ONCE) {
            List<Told> some = told.subList(from, Math.min(told.size(), from + AT_ONCE));
            List<Long> given = some.stream().map(one -> supply.next()).toList();
            Iterator<Long> next = given.iterator();
            plain.batchUpdate("""
                    INSERT IGNORE INTO bank_notice (id, bank_account_id, kind, code, names, words, payment_id, amount_minor, currency,
                      right_sealed, state, said, read_on, read_at, read_by, version)
                    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'WAITING', '', ?, ?, ?, 0)
                    """, some, AT_ONCE, (row, one) -> {
                int at = 1;
                row.setLong(at++, next.next());
                row.setLong(at++, account.value());
                row.setString(at++, one.kind().name());
                row.setString(at++, one.code());
                row.setString(at++, one.names());
                row.setString(at++, one.words());
                row.setObject(at++, one.payment(), Types.BIGINT);
                row.setObject(at++, one.minor(), Types.BIGINT);
                row.setString(at++, one.currency());
                row.setString(at++, one.right());
                row.setObject(at++, by.today());
                row.setTimestamp(at++, Timestamp.from(by.now()));
                row.setLong(at, by.person().value());
            });
            // how many rows a batch added, its driver need not say
            fresh.addAll(jdbc.sql("SELECT id FROM bank_notice WHERE id IN (:given) ORDER BY id")
                    .param("given", given)
                    .query(Long.class)
                    .list());
        }
        return fresh;
    }

    /** Those of them that wait, with their rows locked until the transaction ends; somebody dealt with the others. */
    List<Waiting> lock(List<Long> notices) {
        return jdbc.sql(
                        "SELECT id, bank_account_id, kind, code, names, words, payment_id, amount_minor, currency, right_sealed"
                                + " FROM bank_notice WHERE id IN (:notices) AND state = 'WAITING' ORDER BY id FOR UPDATE")
                .param("notices", notices)
                .query((r, n) -> waiting(r))
                .list();
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

    /** @param said what came of each */
    void done(Actor by, String state, Map<Long, String> said) {
        Timestamp at = Timestamp.from(by.now());
        plain.batchUpdate(
                "UPDATE bank_notice SET state = ?, said = ?, done_at = ?, done_by = ?, version = version + 1"
                        + " WHERE id = ? AND state = 'WAITING'",
                said.entrySet().stream()
                        .map(one -> new Object[] {
                            state, shortened(one.getValue()), at, by.person().value(), one.getKey()
                        })
                        .toList());
    }

    private static String shortened(String text) {
        return text.length() > LONGEST_SAID ? text.substring(0, LONGEST_SAID) : text;
    }
}
