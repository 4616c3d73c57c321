package leveltally.server.wires;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.wires.Confirmation;
import leveltally.server.payments.Called;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Wires as they stand on lists, with what the bank said of each (law L12). */
@Component
public class WireOrders {
    private static final long FIRST_REFERENCE = 1001;

    private final JdbcClient jdbc;
    private final JdbcTemplate many;

    WireOrders(JdbcClient jdbc, JdbcTemplate many) {
        this.jdbc = jdbc;
        this.many = many;
    }

    /**
     * A wire that stands on a list.
     *
     * @param listedOn the day it was put there
     * @param confirmed what the bank said; null while it said nothing
     * @param confirmedBy who wrote that down; empty for nobody
     */
    record Order(
            PaymentId payment,
            ClaimId claim,
            BatchId batch,
            String called,
            Money amount,
            PaymentState state,
            LocalDate listedOn,
            @Nullable Confirmation confirmed,
            String confirmedBy) {
        boolean posted() {
            return state != PaymentState.PREPARED;
        }
    }

    private static final String ORDER = """
            SELECT w.payment_id, p.claim_id, p.batch_id, w.called, w.amount_minor, w.currency, p.state, w.listed_at, w.bank_reference,
              w.fee_minor, w.sent_on, COALESCE(c.name, '') AS confirmed_by, DATE(w.listed_at) AS listed_on, v.business_date
            FROM wire_order w JOIN payment p ON p.id = w.payment_id AND p.standing
            JOIN payment_event v ON v.payment_id = p.id AND v.step = 1 LEFT JOIN person c ON c.id = w.confirmed_by
            """;

    /** Those of a batch that stand, by claim. */
    @Transactional(readOnly = true)
    Map<ClaimId, Order> of(BatchId batch) {
        Map<ClaimId, Order> orders = new HashMap<>();
        jdbc.sql(ORDER + " WHERE p.batch_id = :batch")
                .param("batch", batch.value())
                .query((ResultSet r) -> {
                    Order order = order(r);
                    orders.put(order.claim(), order);
                });
        return orders;
    }

    @Transactional(readOnly = true)
    Optional<Order> of(PaymentId payment) {
        return jdbc.sql(ORDER + " WHERE p.id = :payment")
                .param("payment", payment.value())
                .query((r, n) -> order(r))
                .optional();
    }

    private static Order order(ResultSet r) throws SQLException {
        String currency = r.getString("currency");
        String reference = r.getString("bank_reference");
        return new Order(
                new PaymentId(r.getLong("payment_id")),
                new ClaimId(r.getLong("claim_id")),
                new BatchId(r.getLong("batch_id")),
                r.getString("called"),
                Money.ofMinor(r.getLong("amount_minor"), currency),
                PaymentState.valueOf(r.getString("state")),
                r.getObject("business_date", LocalDate.class),
                reference == null
                        ? null
                        : new Confirmation(
                                reference,
                                Money.ofMinor(r.getLong("fee_minor"), currency),
                                r.getObject("sent_on", LocalDate.class)),
                r.getString("confirmed_by"));
    }

    /** The references that the next wires of a way get; whoever asks holds its bank account. */
    @Transactional
    List<String> references(WayId way, int count) {
        long next = next(way);
        List<String> called = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            called.add("W" + (next + i));
        }
        return called;
    }

    private long next(WayId way) {
        return jdbc.sql("SELECT COALESCE(MAX(reference), ?) + 1 FROM wire_order WHERE way_id = ? LOCK IN SHARE MODE")
                .params(FIRST_REFERENCE - 1, way.value())
                .query(Long.class)
                .single();
    }

    @Transactional
    void put(Actor by, WayId way, List<PaymentId> payments, List<Claim> claims) {
        long next = next(way);
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < payments.size(); i++) {
            Money amount = claims.get(i).amount();
            rows.add(new Object[] {
                payments.get(i).value(),
                way.value(),
                next + i,
                "W" + (next + i),
                amount.currency().getCurrencyCode(),
                amount.minor(),
                Timestamp.from(by.now()),
                by.person().value()
            });
        }
        many.batchUpdate(
                "INSERT INTO wire_order (payment_id, way_id, reference, called, currency, amount_minor, listed_at, listed_by)"
                        + " VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
                rows);
    }

    /** @return false where another wire of this way carries that reference of the bank */
    @Transactional
    boolean confirm(Actor by, PaymentId payment, Confirmation said) {
        try {
            jdbc.sql("""
                            UPDATE wire_order SET bank_reference = :reference, fee_minor = :fee, sent_on = :sent, confirmed_at = :at,
                              confirmed_by = :by WHERE payment_id = :payment
                            """)
                    .param("reference", said.bankReference())
                    .param("fee", said.fee().minor())
                    .param("sent", said.sentOn())
                    .param("at", Timestamp.from(by.now()))
                    .param("by", by.person().value())
                    .param("payment", payment.value())
                    .update();
            return true;
        } catch (DuplicateKeyException used) {
            return false;
        }
    }

    /** Those of a batch that the bank confirmed and the ledger has not, held until the transaction ends. */
    @Transactional
    public List<PaymentId> confirmed(BatchId batch) {
        return jdbc.sql(
                        "SELECT w.payment_id FROM wire_order w JOIN payment p ON p.id = w.payment_id"
                                + " WHERE p.batch_id = ? AND p.state = ? AND w.bank_reference IS NOT NULL ORDER BY w.reference FOR UPDATE")
                .params(batch.value(), PaymentState.PREPARED.name())
                .query((r, n) -> new PaymentId(r.getLong("payment_id")))
                .list();
    }

    /** What people call wires that were ordered from a list; all others are missing. */
    @Transactional(readOnly = true)
    public Map<PaymentId, Called> called(List<PaymentId> payments) {
        Map<PaymentId, Called> names = new HashMap<>();
        if (!payments.isEmpty()) {
            jdbc.sql(
                            "SELECT payment_id, COALESCE(bank_reference, called) AS called FROM wire_order WHERE payment_id IN (:payments)")
                    .param("payments", payments.stream().map(PaymentId::value).toList())
                    .query((ResultSet r) -> {
                        names.put(
                                new PaymentId(r.getLong("payment_id")),
                                new Called(PaymentMethod.WIRE.called(r.getString("called")), PaymentMethod.WIRE));
                    });
        }
        return names;
    }

    /** How many of these claims are not in the ledger. */
    @Transactional(readOnly = true)
    public int unposted(BatchId batch, List<Claim> standing) {
        Map<ClaimId, Order> orders = of(batch);
        return (int) standing.stream()
                .filter(claim -> {
                    Order order = orders.get(claim.id());
                    return order == null || !order.posted();
                })
                .count();
    }
}
