package leveltally.server.exchange;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.exchange.SendingState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Files for a bank that somebody asked to send: each once. */
@Service
public class Outgoing {
    private final JdbcClient jdbc;
    private final Channels channels;
    private final AuditTrail audit;

    Outgoing(JdbcClient jdbc, Channels channels, AuditTrail audit) {
        this.jdbc = jdbc;
        this.channels = channels;
        this.audit = audit;
    }

    /**
     * A file on its way.
     *
     * @param answered the bank's answer is recorded, so that nobody has to do anything about its way
     */
    public record SendingView(
            long file,
            long serial,
            String name,
            SendingState state,
            String words,
            String trouble,
            int tries,
            Instant nextTryAt,
            Instant askedAt,
            String askedBy,
            @Nullable Instant sentAt,
            boolean answered) {}

    /** The newest of an account. */
    @Transactional(readOnly = true)
    public List<SendingView> of(Actor by, BankAccountId account) {
        by.mayDo(Deed.READ);
        return jdbc.sql("""
                        SELECT s.file_id, f.serial, f.file_name, s.state, s.trouble, s.tries, s.next_try_at, s.asked_at, p.name, s.sent_at,
                          f.state <> 'MADE' AS answered
                        FROM bank_sending s JOIN bank_file f ON f.id = s.file_id JOIN person p ON p.id = s.asked_by
                        WHERE s.bank_account_id = ? ORDER BY s.file_id DESC LIMIT 200
                        """)
                .param(account.value())
                .query((r, n) -> {
                    SendingState state = SendingState.valueOf(r.getString("state"));
                    Timestamp sent = r.getTimestamp("sent_at");
                    return new SendingView(
                            r.getLong("file_id"),
                            r.getLong("serial"),
                            r.getString("file_name"),
                            state,
                            state.words(),
                            r.getString("trouble"),
                            r.getInt("tries"),
                            r.getTimestamp("next_try_at").toInstant(),
                            r.getTimestamp("asked_at").toInstant(),
                            r.getString("name"),
                            sent == null ? null : sent.toInstant(),
                            r.getBoolean("answered"));
                })
                .list();
    }

    private record File(BankAccountId account, long serial, String state) {}

    /** Gives a file to the channel of its account; it is sent as soon as the bank is reached. */
    @Transactional
    public void send(Actor by, long id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        File file = locked(id);
        channels.get(file.account());
        if (!file.state().equals("MADE")) {
            throw Refusal.conflict(
                    "answered-already",
                    "The bank answered file " + file.serial() + " already, so it is not sent again.");
        }
        int added = jdbc.sql("""
                        INSERT IGNORE INTO bank_sending (file_id, bank_account_id, state, tries, next_try_at, trouble, asked_at, asked_by)
                        VALUES (?, ?, 'WAITING', 0, ?, '', ?, ?)
                        """)
                .params(
                        id,
                        file.account().value(),
                        Timestamp.from(by.now()),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        if (added == 0) {
            throw Refusal.conflict(
                    "sent-already", "File " + file.serial() + " was given to the channel already. It is sent once.");
        }
        audit.record(by, "send bank file", "bank file " + id, Map.of("serial", file.serial()));
    }

    /** Begins anew what was given up or could not be sent. */
    @Transactional
    public void again(Actor by, long id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        mustBe(id, SendingState.STUCK, "is not stuck");
        jdbc.sql(
                        "UPDATE bank_sending SET state = 'WAITING', tries = 0, next_try_at = ?, trouble = '' WHERE file_id = ?")
                .params(Timestamp.from(by.now()), id)
                .update();
        audit.record(by, "send bank file again", "bank file " + id, Map.of());
    }

    /** Says what the bank said of a file of which it is not known whether it came. */
    @Transactional
    public void settle(Actor by, long id, boolean came) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        mustBe(id, SendingState.UNKNOWN, "is not one of which nothing is known");
        jdbc.sql(
                        came
                                ? "UPDATE bank_sending SET state = 'SENT', sent_at = ?, trouble = '' WHERE file_id = ?"
                                : "UPDATE bank_sending SET state = 'WAITING', tries = 0, next_try_at = ?, naming_at = NULL, trouble = ''"
                                        + " WHERE file_id = ?")
                .params(Timestamp.from(by.now()), id)
                .update();
        audit.record(by, came ? "bank has the file" : "bank has no such file", "bank file " + id, Map.of());
    }

    /** The bank answered: it has the file, whatever is known of its way. */
    void heard(long id, Instant now) {
        jdbc.sql(
                        "UPDATE bank_sending SET state = 'SENT', sent_at = ?, trouble = '' WHERE file_id = ? AND state <> 'SENT'")
                .params(Timestamp.from(now), id)
                .update();
    }

    private void mustBe(long id, SendingState state, String isNot) {
        File file = locked(id);
        String now = jdbc.sql("SELECT state FROM bank_sending WHERE file_id = ? FOR UPDATE")
                .param(id)
                .query(String.class)
                .optional()
                .orElse("");
        if (!now.equals(state.name())) {
            throw Refusal.conflict("sending-changed", "File " + file.serial() + " " + isNot + " any more. Look again.");
        }
    }

    private File locked(long id) {
        return jdbc.sql("SELECT bank_account_id, serial, state FROM bank_file WHERE id = ?")
                .param(id)
                .query((r, n) -> new File(
                        new BankAccountId(r.getLong("bank_account_id")), r.getLong("serial"), r.getString("state")))
                .optional()
                .orElseThrow(
                        () -> Refusal.notFound("no-file", "There is no such bank file. Choose one from the list."));
    }
}
