package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reportable;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.Outcome;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads what payments settled, as it stands before they are undone. */
@Component
class UndoneItems {
    private final JdbcClient jdbc;

    UndoneItems(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param batch the name of the batch that is about to pay it; null where none is */
    record Item(
            Effect.Before before,
            AccountId payables,
            @Nullable String batch) {}

    Map<InvoiceId, Item> of(Collection<InvoiceId> ids) {
        Map<InvoiceId, Item> found = new HashMap<>();
        if (ids.isEmpty()) {
            return found;
        }
        jdbc.sql("""
                        SELECT i.id, i.reference, i.amount_minor, i.open_minor, i.discountable_minor, i.discount_rate,
                          i.discount_date, i.at_par_minor, i.discount_taken_minor, i.currency, i.payables_account_id,
                          b.name AS batch
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.id IN (:ids)
                        """).param("ids", values(ids)).query((java.sql.ResultSet r) -> {
            Currency currency = Currency.getInstance(r.getString("currency"));
            InvoiceId id = new InvoiceId(r.getLong("id"));
            found.put(
                    id,
                    new Item(
                            new Effect.Before(
                                    id,
                                    r.getString("reference"),
                                    Money.ofMinor(r.getLong("amount_minor"), currency),
                                    Money.ofMinor(r.getLong("open_minor"), currency),
                                    Money.ofMinor(r.getLong("discountable_minor"), currency),
                                    r.getBigDecimal("discount_rate"),
                                    r.getObject("discount_date", LocalDate.class),
                                    Money.ofMinor(r.getLong("at_par_minor"), currency),
                                    Money.ofMinor(r.getLong("discount_taken_minor"), currency)),
                            new AccountId(r.getLong("payables_account_id")),
                            r.getString("batch")));
        });
        return found;
    }

    /** The account lines of each document, as the weights by which it is cancelled. */
    Map<InvoiceId, List<Outcome.Line>> lines(Collection<InvoiceId> ids) {
        Map<InvoiceId, List<Outcome.Line>> found = new HashMap<>();
        if (!ids.isEmpty()) {
            jdbc.sql("""
                            SELECT l.invoice_id, l.account_id, l.amount_minor, i.currency FROM invoice_line l
                            JOIN invoice i ON i.id = l.invoice_id WHERE l.invoice_id IN (:ids) ORDER BY l.id
                            """).param("ids", values(ids)).query((java.sql.ResultSet r) -> {
                found.computeIfAbsent(new InvoiceId(r.getLong("invoice_id")), none -> new ArrayList<>())
                        .add(new Outcome.Line(
                                new AccountId(r.getLong("account_id")),
                                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))));
            });
        }
        return found;
    }

    /** The account each payment's money is on. */
    Map<PaymentId, AccountId> cash(Collection<PaymentId> ids) {
        Map<PaymentId, AccountId> found = new HashMap<>();
        if (!ids.isEmpty()) {
            jdbc.sql("SELECT p.id, f.account_id FROM payment p JOIN batch b ON b.id = p.batch_id"
                            + " JOIN paid_from f ON f.way_id = b.way_id WHERE p.id IN (:ids)")
                    .param("ids", ids.stream().map(PaymentId::value).toList())
                    .query((java.sql.ResultSet r) -> {
                        found.put(new PaymentId(r.getLong("id")), new AccountId(r.getLong("account_id")));
                    });
        }
        return found;
    }

    /** As what each payment's vendor is reported. */
    Map<PaymentId, Reportable> reportable(Collection<PaymentId> ids) {
        Map<PaymentId, Reportable> found = new HashMap<>();
        if (!ids.isEmpty()) {
            jdbc.sql("SELECT p.id, v.reportable FROM payment p JOIN vendor v ON v.id = p.vendor_id"
                            + " JOIN batch b ON b.id = p.batch_id AND b.method IN (:cash) WHERE p.id IN (:ids)")
                    .param("cash", PaymentMethod.movingCash())
                    .param("ids", ids.stream().map(PaymentId::value).toList())
                    .query((java.sql.ResultSet r) -> {
                        found.put(new PaymentId(r.getLong("id")), Reportable.valueOf(r.getString("reportable")));
                    });
        }
        return found;
    }

    private static List<Long> values(Collection<InvoiceId> ids) {
        return ids.stream().map(InvoiceId::value).toList();
    }
}
