package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenHistory;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What is open: invoices to pay, credits to use, as they are now and as of any day. */
@Service
public class OpenItems {
    private final EntityManager entities;
    private final JdbcClient jdbc;

    OpenItems(EntityManager entities, JdbcClient jdbc) {
        this.entities = entities;
        this.jdbc = jdbc;
    }

    private static final int LOCKED_AT_ONCE = 2_000;
    private static final int MOST_OWED = 2_000;

    /** Shares these rows until the transaction ends, so that nothing settles them meanwhile. */
    @Transactional
    public void share(Collection<InvoiceId> ids) {
        openNow(ids, "LOCK IN SHARE MODE");
    }

    /**
     * Shares these rows and compares what is open on them with what was seen.
     *
     * @throws Refusal when something settled one of them meanwhile
     */
    @Transactional
    public void shareUnchanged(Map<InvoiceId, Money> seen) {
        Map<InvoiceId, Money> now = openNow(seen.keySet(), "LOCK IN SHARE MODE");
        seen.forEach((id, open) -> {
            if (!open.equals(now.get(id))) {
                throw Refusal.conflict(
                        "settled-meanwhile",
                        "Entry " + id.value() + " was settled or changed elsewhere meanwhile. "
                                + "Nothing of yours was saved; look at the list again.");
            }
        });
    }

    private Map<InvoiceId, Money> openNow(Collection<InvoiceId> ids, String lock) {
        Map<InvoiceId, Money> open = new java.util.HashMap<>();
        // in the order of the ids, so that two deeds never wait for each other crosswise
        List<Long> sorted = ids.stream().map(InvoiceId::value).sorted().toList();
        for (int from = 0; from < sorted.size(); from += LOCKED_AT_ONCE) {
            List<Long> some = sorted.subList(from, Math.min(sorted.size(), from + LOCKED_AT_ONCE));
            jdbc.sql("SELECT id, open_minor, currency FROM invoice WHERE id IN (:ids) ORDER BY id " + lock)
                    .param("ids", some)
                    .query((r, n) -> open.put(
                            new InvoiceId(r.getLong("id")),
                            Money.ofMinor(r.getLong("open_minor"), r.getString("currency"))))
                    .list();
        }
        return open;
    }

    /**
     * Whether so much of each can be settled with this ledger date (law L2); one statement unless something was brought back
     * or arrived later.
     *
     * @throws Refusal naming the first that cannot, and the day from which it can
     */
    @Transactional(readOnly = true)
    public void mustBeOpenOn(LocalDate ledgerDate, Map<InvoiceId, Money> settling) {
        if (settling.isEmpty()) {
            return;
        }
        Map<InvoiceId, Map<LocalDate, Money>> rows = new java.util.HashMap<>();
        Map<InvoiceId, OpenHistory> late = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT i.id, i.reference, i.ledger_date AS own_date, i.amount_minor, i.currency, s.ledger_date AS settled_on,
                          SUM(s.amount_minor) AS settled_minor
                        FROM invoice i LEFT JOIN settlement s ON s.invoice_id = i.id
                        WHERE i.open_since > :date AND i.id IN (
                          SELECT n FROM JSON_TABLE(:ids, '$[*]' COLUMNS (n BIGINT PATH '$')) x)
                        GROUP BY i.id, s.ledger_date ORDER BY i.id
                        """)
                .param("date", ledgerDate)
                .param(
                        "ids",
                        settling.keySet().stream()
                                .map(InvoiceId::value)
                                .toList()
                                .toString())
                .query((java.sql.ResultSet r) -> {
                    InvoiceId id = new InvoiceId(r.getLong("id"));
                    LocalDate day = r.getObject("settled_on", LocalDate.class);
                    if (day != null) {
                        rows.computeIfAbsent(id, none -> new java.util.HashMap<>())
                                .put(day, Money.ofMinor(r.getLong("settled_minor"), r.getString("currency")));
                    }
                    late.put(
                            id,
                            new OpenHistory(
                                    r.getString("reference"),
                                    r.getObject("own_date", LocalDate.class),
                                    Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                                    rows.getOrDefault(id, Map.of())));
                });
        late.forEach((id, history) -> history.mustAllow(settling.get(id), ledgerDate));
    }

    /** Those of them that are invoices with something left to pay. */
    @Transactional(readOnly = true)
    public Map<InvoiceId, OpenInvoice> stillOpen(Collection<InvoiceId> ids) {
        Map<InvoiceId, OpenInvoice> found = new LinkedHashMap<>();
        rows(ids).stream()
                .filter(row -> row.kind == InvoiceKind.INVOICE && row.openMinor > 0)
                .forEach(row -> found.put(new InvoiceId(row.id), view(row)));
        return found;
    }

    /** Those of them that are credits with something left to use. */
    @Transactional(readOnly = true)
    public Map<InvoiceId, OpenCredit> openCredits(Collection<InvoiceId> ids) {
        return usable(InvoiceKind.CREDIT, ids);
    }

    /** Those of them that were paid ahead, with something left that no invoice was matched with. */
    @Transactional(readOnly = true)
    public Map<InvoiceId, OpenCredit> openPrepayments(Collection<InvoiceId> ids) {
        return usable(InvoiceKind.PREPAYMENT, ids);
    }

    private Map<InvoiceId, OpenCredit> usable(InvoiceKind of, Collection<InvoiceId> ids) {
        Map<InvoiceId, OpenCredit> found = new LinkedHashMap<>();
        rows(ids).stream()
                .filter(row -> row.kind == of && row.openMinor > 0)
                .forEach(row -> found.put(
                        new InvoiceId(row.id),
                        new OpenCredit(
                                new InvoiceId(row.id),
                                row.reference,
                                row.invoiceDate,
                                new LedgerDays(row.ledgerDate, row.openSince),
                                Money.ofMinor(row.openMinor, row.currency),
                                row.usableFrom)));
        return found;
    }

    /** An open invoice with the vendor it is owed to. */
    public record OwedTo(VendorId vendor, OpenInvoice invoice) {}

    /** Open invoices of these vendors with one of these references; two statements at most. */
    @Transactional(readOnly = true)
    public List<OwedTo> referenced(Collection<VendorId> vendors, Collection<String> references) {
        return vendors.isEmpty() || references.isEmpty()
                ? List.of()
                : owed("i.reference in :references", vendors, Map.of("references", references));
    }

    /** Open invoices of these vendors that owe one of these amounts, or a little more: a discount may make up for it. */
    @Transactional(readOnly = true)
    public List<OwedTo> owing(Collection<VendorId> vendors, Collection<Money> amounts) {
        if (vendors.isEmpty() || amounts.isEmpty()) {
            return List.of();
        }
        String near = amounts.stream()
                .distinct()
                .map(amount -> "i.currency = '" + amount.currency() + "' and i.openMinor between " + amount.minor()
                        + " and " + (amount.minor() / 3 * 4 + 4))
                .collect(Collectors.joining(" or "));
        return owed("(" + near + ")", vendors, Map.of());
    }

    private List<OwedTo> owed(String which, Collection<VendorId> vendors, Map<String, ?> params) {
        var query = entities.createQuery(
                        "select i from InvoiceEntity i where i.vendorId in :vendors and i.kind = INVOICE and i.openMinor > 0 and "
                                + which + " order by i.id",
                        InvoiceEntity.class)
                .setParameter("vendors", vendors.stream().map(VendorId::value).toList())
                .setMaxResults(MOST_OWED);
        params.forEach(query::setParameter);
        return query.getResultStream()
                .map(row -> new OwedTo(new VendorId(row.vendorId), view(row)))
                .toList();
    }

    /** The invoices as they are owed now. */
    @Transactional(readOnly = true)
    public Map<InvoiceId, OpenInvoice> open(Collection<InvoiceId> ids) {
        Map<InvoiceId, OpenInvoice> found = new LinkedHashMap<>();
        rows(ids).forEach(row -> found.put(new InvoiceId(row.id), view(row)));
        return found;
    }

    /** The payables account of each. */
    @Transactional(readOnly = true)
    public Map<InvoiceId, AccountId> payables(Collection<InvoiceId> ids) {
        Map<InvoiceId, AccountId> found = new LinkedHashMap<>();
        rows(ids).forEach(row -> found.put(new InvoiceId(row.id), new AccountId(row.payablesAccountId)));
        return found;
    }

    private List<InvoiceEntity> rows(Collection<InvoiceId> ids) {
        if (ids.isEmpty()) {
            return List.of();
        }
        return entities.createQuery(
                        "select i from InvoiceEntity i where i.id in :ids order by i.id", InvoiceEntity.class)
                .setParameter("ids", ids.stream().map(InvoiceId::value).toList())
                .getResultList();
    }

    private static OpenInvoice view(InvoiceEntity row) {
        Currency currency = Currency.getInstance(row.currency);
        Money amount = Money.ofMinor(row.amountMinor, currency);
        Money open = Money.ofMinor(row.openMinor, currency);
        Discount discount = Discount.after(
                Money.ofMinor(row.discountableMinor, currency),
                row.discountRate,
                row.discountDate,
                amount.minus(open),
                Money.ofMinor(row.atParMinor, currency),
                Money.ofMinor(row.discountTakenMinor, currency));
        return new OpenInvoice(
                new InvoiceId(row.id),
                row.reference,
                row.invoiceDate,
                row.dueDate,
                new LedgerDays(row.ledgerDate, row.openSince),
                amount,
                open,
                discount);
    }

    /** Why an id leads nowhere, in words. */
    public static Refusal unknown(long id) {
        return Refusal.notFound("no-invoice", "There is no invoice with entry number " + id + ".");
    }
}
