package leveltally.server.outside;

import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberState;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.payments.Called;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The numbers of payments made elsewhere: as typed while their batch is a draft, as facts once they are posted. */
@Service
public class OutsideNumbers {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;

    OutsideNumbers(JdbcClient jdbc, JdbcTemplate plain) {
        this.jdbc = jdbc;
        this.plain = plain;
    }

    /** Payments made elsewhere that are no checks; all others are missing. */
    @Transactional(readOnly = true)
    public Map<PaymentId, Called> called(Collection<PaymentId> payments) {
        Map<PaymentId, Called> names = new HashMap<>();
        if (!payments.isEmpty()) {
            jdbc.sql(
                            "SELECT n.payment_id, n.number, w.method FROM outside_number n JOIN way_to_pay w ON w.id = n.way_id"
                                    + " WHERE n.payment_id IN (:payments)")
                    .param("payments", payments.stream().map(PaymentId::value).toList())
                    .query((ResultSet r) -> {
                        PaymentMethod method = PaymentMethod.valueOf(r.getString("method"));
                        names.put(
                                new PaymentId(r.getLong("payment_id")),
                                new Called(method.called(r.getString("number")), method));
                    });
        }
        return names;
    }

    /** What was typed for a claim; {@code vendor} is the number of the vendor it is of. */
    record Typed(String vendor, String number, String said) {}

    Map<ClaimId, Typed> typed(BatchId batch) {
        Map<ClaimId, Typed> typed = new HashMap<>();
        jdbc.sql(
                        "SELECT o.claim_id, c.vendor_number, o.number, o.said FROM outside_entry o JOIN claim c ON c.id = o.claim_id"
                                + " WHERE c.batch_id = :batch")
                .param("batch", batch.value())
                .query((ResultSet r) -> {
                    typed.put(
                            new ClaimId(r.getLong("claim_id")),
                            new Typed(r.getString("vendor_number"), r.getString("number"), r.getString("said")));
                });
        return typed;
    }

    void type(List<ClaimId> claims, List<Typed> typed) {
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < claims.size(); i++) {
            rows.add(new Object[] {
                claims.get(i).value(), typed.get(i).number(), typed.get(i).said()
            });
        }
        plain.batchUpdate("INSERT INTO outside_entry (claim_id, number, said) VALUES (?, ?, ?)", rows);
    }

    /**
     * Where numbers of a way are in use already, in words, by number.
     *
     * @param but a batch whose own numbers do not count; 0 for none
     */
    Map<String, String> used(WayId way, Collection<String> numbers, long but) {
        Map<String, String> used = new HashMap<>();
        if (numbers.isEmpty()) {
            return used;
        }
        jdbc.sql("""
                        SELECT o.number, CONCAT('in the batch “', b.name, '”') AS place FROM outside_entry o
                        JOIN standing_claim c ON c.id = o.claim_id JOIN batch b ON b.id = c.batch_id
                        WHERE b.way_id = :way AND b.id <> :but AND b.state IN (:live) AND o.number IN (:numbers)
                        UNION ALL SELECT n.number, CONCAT('by the payment to ', p.payee, ' of ', p.check_date)
                        FROM outside_number n JOIN payment p ON p.id = n.payment_id
                        WHERE n.way_id = :way AND n.number IN (:numbers)
                        """)
                .param("way", way.value())
                .param("but", but)
                .param("live", BatchState.live().stream().map(BatchState::name).toList())
                .param("numbers", numbers)
                .query((ResultSet r) -> {
                    used.put(r.getString("number"), r.getString("place"));
                });
        return used;
    }

    /** The states of check numbers of a way that there are, by number. */
    Map<Long, NumberState> known(WayId way, Collection<Long> numbers) {
        Map<Long, NumberState> known = new HashMap<>();
        if (!numbers.isEmpty()) {
            jdbc.sql("SELECT n.number, n.state FROM check_number n JOIN number_series s ON s.id = n.series_id"
                            + " WHERE s.way_id = :way AND n.number IN (:numbers)")
                    .param("way", way.value())
                    .param("numbers", numbers)
                    .query((ResultSet r) -> {
                        known.put(r.getLong("number"), NumberState.valueOf(r.getString("state")));
                    });
        }
        return known;
    }

    /**
     * Records the numbers of posted payments; each is there once for ever (law L3).
     *
     * @throws Refusal when another payment was posted with one of them meanwhile
     */
    void post(WayId way, Map<PaymentId, String> numbers) {
        try {
            plain.batchUpdate(
                    "INSERT INTO outside_number (payment_id, way_id, number) VALUES (?, ?, ?)",
                    numbers.entrySet().stream()
                            .map(one -> new Object[] {one.getKey().value(), way.value(), one.getValue()})
                            .toList());
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict(
                    "number-used",
                    "A payment with one of these numbers was posted meanwhile. Send the batch back, and look at the numbers"
                            + " again.");
        }
    }
}
