package leveltally.server.electronic;

import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.electronic.FiledPayment;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.bankfiles.PaymentFileStore;
import leveltally.server.payments.Called;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Payments as files carry them: the reference of each, and the one file not refused that it stands in (law L12). */
@Component
public class ElectronicItems {
    /** From a thousand values on MariaDB makes a list a table. */
    private static final int AT_ONCE = 900;

    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final PaymentFileStore store;

    ElectronicItems(JdbcClient jdbc, JdbcTemplate many, PaymentFileStore store) {
        this.store = store;
        this.jdbc = jdbc;
        this.many = many;
    }

    /**
     * A payment that has its reference.
     *
     * @param file the one that carries it; null where none does
     * @param pending the bank took its file and has not said yet what becomes of it
     * @param refusedFile the file refused last that carried it; null for none
     * @param refusedWhy what the bank found wrong then
     */
    record Item(
            PaymentId payment,
            ClaimId claim,
            int sequence,
            String called,
            PaymentState state,
            @Nullable Long file,
            @Nullable FileState answer,
            boolean pending,
            @Nullable Long refusedFile,
            String refusedWhy) {
        boolean waitsForAFile() {
            return file == null && !posted();
        }

        /** Whether the bank took it. */
        boolean taken() {
            return answer == FileState.ACCEPTED && !pending;
        }

        boolean posted() {
            return state != PaymentState.PREPARED;
        }
    }

    /** Those of a batch that stand, by claim. */
    @Transactional(readOnly = true)
    Map<ClaimId, Item> of(BatchId batch) {
        Map<ClaimId, Item> items = new HashMap<>();
        jdbc.sql("""
                        SELECT i.payment_id, p.claim_id, i.sequence, i.called, p.state AS payment_state, i.file_id, f.state,
                          COALESCE(z.pending, FALSE) AS pending,
                          (SELECT MAX(x.file_id) FROM bank_file_item x WHERE x.payment_id = i.payment_id
                            AND NOT x.file_id <=> i.file_id) AS refused_file,
                          COALESCE((SELECT COALESCE(x.refused_why, g.answer_note) FROM bank_file_item x JOIN bank_file g ON g.id = x.file_id
                            WHERE x.payment_id = i.payment_id AND NOT x.file_id <=> i.file_id ORDER BY x.file_id DESC LIMIT 1), '')
                            AS refused_why
                        FROM payment p JOIN electronic_item i ON i.payment_id = p.id LEFT JOIN bank_file f ON f.id = i.file_id
                        LEFT JOIN bank_file_item z ON z.file_id = i.file_id AND z.payment_id = i.payment_id
                        WHERE p.batch_id = :batch AND p.standing
                        """).param("batch", batch.value()).query((ResultSet r) -> {
            String state = r.getString("state");
            Item item = new Item(
                    new PaymentId(r.getLong("payment_id")),
                    new ClaimId(r.getLong("claim_id")),
                    r.getInt("sequence"),
                    r.getString("called"),
                    PaymentState.valueOf(r.getString("payment_state")),
                    r.getObject("file_id", Long.class),
                    state == null ? null : FileState.valueOf(state),
                    r.getBoolean("pending"),
                    r.getObject("refused_file", Long.class),
                    r.getString("refused_why"));
            items.put(item.claim(), item);
        });
        return items;
    }

    /** Gives payments their references, and the numbers by which they are traced, one after the other from these on. */
    @Transactional
    void refer(ElectronicWay way, List<PaymentId> payments, long first, long firstTrace) {
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < payments.size(); i++) {
            long reference = first + i;
            rows.add(new Object[] {
                payments.get(i).value(),
                way.id().value(),
                reference,
                way.called(reference),
                FiledPayment.sequence(firstTrace + i)
            });
        }
        many.batchUpdate(
                "INSERT INTO electronic_item (payment_id, way_id, reference, called, sequence) VALUES (?, ?, ?, ?, ?)",
                rows);
    }

    /** Puts payments into a file that is being made, in their order, with the amounts it says. */
    @Transactional
    void putIn(long file, List<PaymentId> payments, List<Money> amounts) {
        many.batchUpdate(
                "UPDATE electronic_item SET file_id = ? WHERE payment_id = ?",
                payments.stream()
                        .map(payment -> new Object[] {file, payment.value()})
                        .toList());
        store.putDown(file, payments, amounts);
    }

    /** The bank refused the file: all it carried waits for another. */
    @Transactional
    void waitAgain(long file) {
        jdbc.sql("UPDATE electronic_item SET file_id = NULL WHERE file_id = ?")
                .param(file)
                .update();
    }

    /**
     * The bank refused this payment of a file it took; it waits for another.
     *
     * @return whether the file carries a payment that is called so and is not posted
     */
    @Transactional
    boolean refuse(long file, String called, String why) {
        Long payment = jdbc.sql(
                        "SELECT i.payment_id FROM electronic_item i JOIN payment p ON p.id = i.payment_id AND p.posted_entry_id IS NULL"
                                + " WHERE i.file_id = ? AND i.called = ? FOR UPDATE")
                .params(file, called)
                .query(Long.class)
                .optional()
                .orElse(null);
        if (payment == null) {
            return false;
        }
        store.refuse(file, new PaymentId(payment), why);
        jdbc.sql("UPDATE electronic_item SET file_id = NULL WHERE payment_id = ?")
                .param(payment)
                .update();
        return true;
    }

    /** Those of these payments that a file carries, which none of them leaves before the transaction ends. */
    @Transactional
    List<PaymentId> held(List<PaymentId> payments) {
        List<PaymentId> held = new ArrayList<>();
        for (int from = 0; from < payments.size(); from += AT_ONCE) {
            held.addAll(jdbc.sql("SELECT payment_id FROM electronic_item WHERE payment_id IN (:payments)"
                            + " AND file_id IS NOT NULL ORDER BY payment_id FOR UPDATE")
                    .param(
                            "payments",
                            payments.subList(from, Math.min(payments.size(), from + AT_ONCE)).stream()
                                    .map(PaymentId::value)
                                    .toList())
                    .query((r, n) -> new PaymentId(r.getLong("payment_id")))
                    .list());
        }
        return held;
    }

    /** Payments that files carry; all others are missing. */
    @Transactional(readOnly = true)
    public Map<PaymentId, Called> called(Collection<PaymentId> payments) {
        Map<PaymentId, Called> names = new HashMap<>();
        List<Long> ids = payments.stream().map(PaymentId::value).toList();
        for (int from = 0; from < ids.size(); from += AT_ONCE) {
            jdbc.sql(
                            "SELECT i.payment_id, i.called, w.method FROM electronic_item i JOIN way_to_pay w ON w.id = i.way_id"
                                    + " WHERE i.payment_id IN (:payments)")
                    .param("payments", ids.subList(from, Math.min(ids.size(), from + AT_ONCE)))
                    .query((ResultSet r) -> {
                        PaymentMethod method = PaymentMethod.valueOf(r.getString("method"));
                        names.put(
                                new PaymentId(r.getLong("payment_id")),
                                new Called(method.called(r.getString("called")), method));
                    });
        }
        return names;
    }
}
