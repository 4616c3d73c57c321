package leveltally.server.clearing;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Lists what banks said of payments by file afterwards. */
@Component
class NoticeList {
    private static final int MOST_LISTED = 300;

    private final JdbcClient jdbc;

    NoticeList(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * One of them.
     *
     * @param names how the bank names the payment; {@code called} its reference, empty where there is no such payment
     * @param amount what came back; null where nothing did
     * @param said what came of it, or why nothing did yet
     */
    record NoticeView(
            long id,
            NoticeRows.Kind kind,
            String code,
            String words,
            String names,
            String called,
            String payee,
            @Nullable Long vendor,
            @Nullable Long batch,
            @Nullable Long claim,
            @Nullable MoneyView amount,
            String state,
            String said,
            LocalDate readOn,
            Instant readAt,
            String readBy,
            @Nullable Instant doneAt,
            @Nullable String doneBy) {}

    /** Those that wait first, then the newest. */
    @Transactional(readOnly = true)
    List<NoticeView> of(Actor by, BankAccountId account) {
        by.mayDo(Deed.READ);
        return jdbc.sql("""
                        SELECT n.id, n.kind, n.code, n.words, n.names, COALESCE(i.called, '') AS called, COALESCE(p.payee, '') AS payee,
                          p.vendor_id, p.batch_id, p.claim_id, n.amount_minor, n.currency, n.state, n.said, n.read_on, n.read_at,
                          r.name AS read_by, n.done_at, d.name AS done_by
                        FROM bank_notice n JOIN person r ON r.id = n.read_by LEFT JOIN person d ON d.id = n.done_by
                        LEFT JOIN payment p ON p.id = n.payment_id LEFT JOIN electronic_item i ON i.payment_id = n.payment_id
                        WHERE n.bank_account_id = :account ORDER BY n.state = 'WAITING' DESC, n.id DESC LIMIT :most
                        """)
                .param("account", account.value())
                .param("most", MOST_LISTED)
                .query((r, n) -> {
                    Long minor = r.getObject("amount_minor", Long.class);
                    Timestamp done = r.getTimestamp("done_at");
                    return new NoticeView(
                            r.getLong("id"),
                            NoticeRows.Kind.valueOf(r.getString("kind")),
                            r.getString("code"),
                            r.getString("words"),
                            r.getString("names"),
                            r.getString("called"),
                            r.getString("payee"),
                            r.getObject("vendor_id", Long.class),
                            r.getObject("batch_id", Long.class),
                            r.getObject("claim_id", Long.class),
                            minor == null ? null : MoneyView.of(minor, r.getString("currency")),
                            r.getString("state"),
                            r.getString("said"),
                            r.getObject("read_on", LocalDate.class),
                            r.getTimestamp("read_at").toInstant(),
                            r.getString("read_by"),
                            done == null ? null : done.toInstant(),
                            r.getString("done_by"));
                })
                .list();
    }
}
