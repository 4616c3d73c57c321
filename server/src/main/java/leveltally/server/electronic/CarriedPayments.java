package leveltally.server.electronic;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import leveltally.core.bankfiles.FileState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Seal;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Finds payments again by what a bank calls them. */
@Service
public class CarriedPayments {
    private static final String COLUMNS = """
            SELECT i.payment_id, i.called, p.state AS payment_state, p.amount_minor, p.currency, p.vendor_id, c.remit_to_id,
              c.bank_sealed, i.file_id, i.sequence, f.state AS answer
            FROM electronic_item i JOIN payment p ON p.id = i.payment_id JOIN claim c ON c.id = p.claim_id
            JOIN way_to_pay w ON w.id = i.way_id LEFT JOIN bank_file f ON f.id = i.file_id
            WHERE w.bank_account_id = :account AND w.method = :method
            """;

    private final JdbcClient jdbc;
    private final Seal seal;

    CarriedPayments(JdbcClient jdbc, Seal seal) {
        this.jdbc = jdbc;
        this.seal = seal;
    }

    /** By the last digits of their trace numbers; the newest of several, because they begin anew. Others are left out. */
    @Transactional(readOnly = true)
    public Map<Integer, Carried> traced(BankAccountId account, Collection<Integer> sequences) {
        Map<Integer, Carried> found = new HashMap<>();
        if (!sequences.isEmpty()) {
            jdbc.sql(COLUMNS + " AND i.sequence IN (:sequences) ORDER BY i.payment_id")
                    .param("account", account.value())
                    .param("method", PaymentMethod.ACH.name())
                    .param("sequences", sequences)
                    .query((r, n) -> found.put(r.getInt("sequence"), carried(r)))
                    .list();
        }
        return found;
    }

    /** All that a file carries. */
    @Transactional(readOnly = true)
    public List<Carried> of(BankAccountId account, long file) {
        return jdbc.sql(COLUMNS + " AND i.file_id = :file ORDER BY i.reference")
                .param("account", account.value())
                .param("method", PaymentMethod.CREDIT_TRANSFER.name())
                .param("file", file)
                .query((r, n) -> carried(r))
                .list();
    }

    /** By their ids, in the order of these; what no file ever carried is left out. */
    @Transactional(readOnly = true)
    public List<Carried> of(Collection<PaymentId> payments) {
        if (payments.isEmpty()) {
            return List.of();
        }
        return jdbc.sql(COLUMNS.replace(
                                "w.bank_account_id = :account AND w.method = :method", "i.payment_id IN (:payments)")
                        + " ORDER BY i.payment_id")
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .query((r, n) -> carried(r))
                .list();
    }

    private Carried carried(ResultSet r) throws SQLException {
        String answer = r.getString("answer");
        return new Carried(
                new PaymentId(r.getLong("payment_id")),
                r.getString("called"),
                PaymentState.valueOf(r.getString("payment_state")),
                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                new VendorId(r.getLong("vendor_id")),
                r.getLong("remit_to_id"),
                BankDetails.of(seal.open(Objects.requireNonNull(r.getString("bank_sealed")))),
                r.getObject("file_id", Long.class),
                answer == null ? null : FileState.valueOf(answer));
    }
}
