package leveltally.server.electronic;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.Announcement;
import leveltally.core.electronic.FiledPayment;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which accounts of payees were announced to their banks, and what came of it. */
@Service
public class Announcements {
    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final WorkIds ids;

    Announcements(JdbcClient jdbc, JdbcTemplate many, WorkIds ids) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
    }

    /** By the keyed hash of the account: the newest announcement in a file the bank did not refuse. */
    @Transactional(readOnly = true)
    Map<String, Announcement> of(ElectronicWay way, Collection<String> keys) {
        Map<String, Announcement> found = new HashMap<>();
        if (!keys.isEmpty()) {
            jdbc.sql("""
                            SELECT a.bank_key, f.pays_on, f.state, a.sent_back FROM announcement a JOIN bank_file f ON f.id = a.file_id
                            JOIN way_to_pay w ON w.id = a.way_id
                            WHERE w.bank_account_id = :account AND a.bank_key IN (:keys) AND f.state <> :refused ORDER BY a.id
                            """)
                    .param("account", way.account().value())
                    .param("keys", keys)
                    .param("refused", FileState.REFUSED.name())
                    .query((ResultSet r) -> {
                        found.put(
                                r.getString("bank_key"),
                                new Announcement(
                                        r.getObject("pays_on", LocalDate.class),
                                        FileState.valueOf(r.getString("state")) == FileState.ACCEPTED,
                                        r.getString("sent_back")));
                    });
        }
        return found;
    }

    /** Those of these accounts to which a payment of this kind went and did not come back. */
    @Transactional(readOnly = true)
    Set<String> paid(ElectronicWay way, Collection<String> keys) {
        return keys.isEmpty()
                ? Set.of()
                : new HashSet<>(jdbc.sql("""
                                SELECT DISTINCT c.bank_key FROM claim c JOIN payment p ON p.claim_id = c.id
                                JOIN electronic_item i ON i.payment_id = p.id JOIN way_to_pay w ON w.id = i.way_id
                                WHERE c.bank_key IN (:keys) AND w.bank_account_id = :account AND w.method = :method
                                  AND p.state IN (:stand)
                                """)
                        .param("keys", keys)
                        .param("account", way.account().value())
                        .param("method", way.agreement().method().name())
                        .param("stand", List.of(PaymentState.OUTSTANDING.name(), PaymentState.CLEARED.name()))
                        .query(String.class)
                        .list());
    }

    /** An account that is announced. */
    record Announced(long remitTo, String bankKey, FiledPayment entry) {}

    @Transactional
    void put(ElectronicWay way, long file, BatchId batch, List<Announced> announced) {
        WorkIds.Supply supply = ids.supply();
        List<Object[]> rows = new ArrayList<>();
        for (Announced one : announced) {
            rows.add(new Object[] {
                supply.next(),
                way.id().value(),
                file,
                batch.value(),
                one.remitTo(),
                one.bankKey(),
                one.entry().called(),
                one.entry().sequence()
            });
        }
        many.batchUpdate(
                "INSERT INTO announcement (id, way_id, file_id, batch_id, remit_to_id, bank_key, called, sequence)"
                        + " VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
                rows);
    }

    /** @return whether the file announces an account under that reference */
    @Transactional
    boolean refuse(long file, String called, String why) {
        return jdbc.sql("UPDATE announcement SET sent_back = ? WHERE file_id = ? AND called = ?")
                        .params(why, file, called)
                        .update()
                > 0;
    }

    /** An announcement that a bank speaks of. */
    public record Traced(long id, String called, VendorId vendor, long remitTo, String bankKey) {}

    /** By the last digits of its trace number; the newest of several, because they begin anew. */
    @Transactional(readOnly = true)
    public Optional<Traced> traced(BankAccountId account, int sequence) {
        return jdbc.sql("SELECT a.id, a.called, t.vendor_id, a.remit_to_id, a.bank_key FROM announcement a"
                        + " JOIN way_to_pay w ON w.id = a.way_id JOIN remit_to t ON t.id = a.remit_to_id"
                        + " WHERE w.bank_account_id = ? AND a.sequence = ? ORDER BY a.id DESC LIMIT 1")
                .params(account.value(), sequence)
                .query((r, n) -> new Traced(
                        r.getLong("id"),
                        r.getString("called"),
                        new VendorId(r.getLong("vendor_id")),
                        r.getLong("remit_to_id"),
                        r.getString("bank_key")))
                .optional();
    }

    /** The payee's bank does not know the account: nothing goes there until its bank details are others. */
    @Transactional
    public void sentBack(long id, String why) {
        jdbc.sql("UPDATE announcement SET sent_back = ? WHERE id = ?")
                .params(why.substring(0, Math.min(200, why.length())), id)
                .update();
    }
}
