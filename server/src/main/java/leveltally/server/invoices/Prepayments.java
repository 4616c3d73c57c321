package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.core.voiding.PaidAhead;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What was paid ahead of its invoice: an item from the posting of its payment on, matched with the invoice that carries its
 * reference, ended when its payment is undone (decision 0052).
 */
@Service
public class Prepayments {
    /** A reference has at most 40 characters. */
    private static final int LONGEST_TOLD_APART = 34;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Offsets offsets;
    private final Settlements settlements;
    private final Ledger ledger;
    private final Periods periods;
    private final AuditTrail audit;

    Prepayments(
            EntityManager entities,
            JdbcClient jdbc,
            Offsets offsets,
            Settlements settlements,
            Ledger ledger,
            Periods periods,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.offsets = offsets;
        this.settlements = settlements;
        this.ledger = ledger;
        this.periods = periods;
        this.audit = audit;
    }

    /** Makes an item of everything these posted claims paid ahead, and matches what has its invoice here already. */
    @Transactional
    public void arise(Actor by, Collection<ClaimId> posted) {
        entities.flush();
        List<InvoiceId> arisen = new ArrayList<>();
        List<InvoiceEntity> rows = paidAhead(posted);
        tellApart(rows);
        for (InvoiceEntity row : rows) {
            entities.persist(row);
            arisen.add(new InvoiceId(row.id));
            Money amount = Money.ofMinor(row.amountMinor, row.currency);
            audit.record(by, "pay ahead", "invoice " + row.id, Map.of("amount", amount.plain()));
        }
        match(by, arisen);
    }

    private List<InvoiceEntity> paidAhead(Collection<ClaimId> posted) {
        return jdbc.sql("""
                        SELECT l.id AS line, l.reference, l.currency, l.gross_minor, l.usable_from,
                          COALESCE(v.merged_into_id, v.id) AS vendor_id, c.remit_to_id,
                          p.check_date, e.ledger_date, x.account_id
                        FROM claim_line l JOIN claim c ON c.id = l.claim_id JOIN payment p ON p.claim_id = c.id
                        JOIN vendor v ON v.id = p.vendor_id JOIN journal_entry e ON e.id = p.posted_entry_id
                        JOIN claim_line_account x ON x.line_id = l.id
                        WHERE l.kind = 'PREPAYMENT' AND l.claim_id IN (:claims) ORDER BY l.id
                        """)
                .param("claims", posted.stream().map(ClaimId::value).toList())
                .query((r, n) -> item(r))
                .list();
    }

    private static InvoiceEntity item(ResultSet r) throws SQLException {
        InvoiceEntity row = new InvoiceEntity();
        row.aheadLineId = r.getLong("line");
        row.kind = InvoiceKind.PREPAYMENT;
        row.vendorId = r.getLong("vendor_id");
        row.remitToId = r.getLong("remit_to_id");
        row.reference = r.getString("reference");
        row.invoiceDate = r.getObject("check_date", LocalDate.class);
        row.dueDate = row.invoiceDate;
        row.ledgerDate = r.getObject("ledger_date", LocalDate.class);
        row.usableFrom = r.getObject("usable_from", LocalDate.class);
        row.currency = r.getString("currency");
        row.amountMinor = r.getLong("gross_minor");
        row.openMinor = row.amountMinor;
        row.discountableMinor = row.amountMinor;
        row.discountRate = BigDecimal.ZERO;
        row.payablesAccountId = r.getLong("account_id");
        return row;
    }

    /**
     * Vendors that became one since may have been paid ahead of the same reference each: what left the bank is no less paid, so
     * the later one is called by a reference of its own.
     */
    private void tellApart(List<InvoiceEntity> rows) {
        Set<VendorId> vendors =
                rows.stream().map(row -> new VendorId(row.vendorId)).collect(Collectors.toSet());
        Set<Named> taken = new HashSet<>(
                standing(vendors, rows.stream().map(row -> row.reference).toList()));
        for (InvoiceEntity row : rows) {
            VendorId vendor = new VendorId(row.vendorId);
            String paid = row.reference.substring(0, Math.min(row.reference.length(), LONGEST_TOLD_APART));
            for (int next = 2; !taken.add(Named.of(vendor, row.reference)); next++) {
                row.reference = paid + " (" + next + ")";
                taken.addAll(standing(Set.of(vendor), List.of(row.reference)));
            }
        }
    }

    /** A reference of a vendor, whatever its letters' case. */
    public record Named(VendorId vendor, String reference) {
        public static Named of(VendorId vendor, String reference) {
            return new Named(vendor, reference.toLowerCase(Locale.ROOT));
        }
    }

    /** Those of these references under which something these vendors were paid ahead stands. */
    private Set<Named> standing(Collection<VendorId> vendors, Collection<String> references) {
        if (vendors.isEmpty() || references.isEmpty()) {
            return Set.of();
        }
        return Set.copyOf(jdbc.sql("SELECT vendor_id, reference FROM invoice WHERE vendor_id IN (:vendors)"
                        + " AND kind = 'PREPAYMENT' AND standing_reference IN (:references)")
                .param("vendors", vendors.stream().map(VendorId::value).toList())
                .param("references", references)
                .query((r, n) -> Named.of(new VendorId(r.getLong("vendor_id")), r.getString("reference")))
                .list());
    }

    /**
     * Those of these references ahead of which these vendors were, or are about to be, paid, with where, in words; what one
     * batch pays is left out.
     */
    @Transactional(readOnly = true)
    public Map<Named, String> paidAhead(Collection<VendorId> vendors, Collection<String> references, long but) {
        Map<Named, String> found = new HashMap<>();
        standing(vendors, references).forEach(named -> found.put(named, "stands already"));
        if (!vendors.isEmpty() && !references.isEmpty()) {
            jdbc.sql("SELECT vendor_id, reference, name FROM paid_ahead"
                            + " WHERE vendor_id IN (:vendors) AND reference IN (:references) AND batch_id <> :but")
                    .param("vendors", vendors.stream().map(VendorId::value).toList())
                    .param("references", references)
                    .param("but", but)
                    .query((ResultSet r) -> {
                        found.putIfAbsent(
                                Named.of(new VendorId(r.getLong("vendor_id")), r.getString("reference")),
                                "is on its way in the batch “" + r.getString("name") + "”");
                    });
        }
        return found;
    }

    /**
     * Matches, on the business date, invoices and prepayments that arrived with what carries their reference, as far as both
     * are open. What is held, reserved, not usable yet, or of a month that takes nothing new is left to be matched by hand.
     */
    @Transactional
    public List<Offsets.Offset> match(Actor by, Collection<InvoiceId> arrived) {
        record Pair(VendorId vendor, InvoiceId invoice, InvoiceId ahead) {}
        if (arrived.isEmpty()) {
            return List.of();
        }
        entities.flush();
        String ids = arrived.stream().map(InvoiceId::value).toList().toString();
        List<Pair> pairs = jdbc.sql("""
                        SELECT a.vendor_id, i.id AS invoice, a.id AS ahead
                        FROM invoice a JOIN invoice i ON i.vendor_id = a.vendor_id AND i.kind = 'INVOICE'
                          AND i.reference = a.reference AND i.currency = a.currency AND i.is_open = 1
                        LEFT JOIN reservation r ON r.invoice_id = i.id
                        WHERE a.kind = 'PREPAYMENT' AND a.is_open = 1 AND r.invoice_id IS NULL
                          AND a.hold_reason IS NULL AND i.hold_reason IS NULL
                          AND COALESCE(a.usable_from, a.ledger_date) <= :today AND GREATEST(a.open_since, i.open_since) <= :today
                          AND EXISTS (SELECT 1 FROM JSON_TABLE(:ids, '$[*]' COLUMNS (n BIGINT PATH '$')) x
                            WHERE x.n IN (a.id, i.id))
                        ORDER BY a.id
                        """)
                .param("today", by.today())
                .param("ids", ids)
                .query((r, n) -> new Pair(
                        new VendorId(r.getLong("vendor_id")),
                        new InvoiceId(r.getLong("invoice")),
                        new InvoiceId(r.getLong("ahead"))))
                .list();
        if (pairs.isEmpty() || !takesNew(by)) {
            return List.of();
        }
        periods.shareForNew(by, by.today());
        // what just arrived lacks what the database reckons about it
        pairs.stream()
                .flatMap(pair -> Stream.of(pair.invoice(), pair.ahead()))
                .distinct()
                .forEach(id -> entities.refresh(entities.find(InvoiceEntity.class, id.value())));
        return pairs.stream()
                .map(pair -> offsets.lay(by, pair.vendor(), List.of(pair.invoice()), List.of(pair.ahead())))
                .toList();
    }

    private boolean takesNew(Actor by) {
        YearMonth month = YearMonth.from(by.today());
        Period period = periods.known(List.of(month)).get(month);
        return period != null && period.takesNew(by.roles());
    }

    /** What each of these payments paid ahead, with what it was matched with since. */
    @Transactional(readOnly = true)
    public Map<PaymentId, List<PaidAhead>> of(Collection<PaymentId> payments) {
        record Item(PaymentId payment, InvoiceId id, String reference, Money amount, Money open) {}
        if (payments.isEmpty()) {
            return Map.of();
        }
        List<Item> items = jdbc.sql("""
                        SELECT p.id AS payment, i.id, i.reference, i.amount_minor, i.open_minor, i.currency
                        FROM payment p JOIN claim_line l ON l.claim_id = p.claim_id AND l.kind = 'PREPAYMENT'
                        JOIN invoice i ON i.ahead_line_id = l.id AND i.cancelled_on IS NULL
                        WHERE p.id IN (:payments) ORDER BY i.id
                        """)
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .query((r, n) -> new Item(
                        new PaymentId(r.getLong("payment")),
                        new InvoiceId(r.getLong("id")),
                        r.getString("reference"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        Money.ofMinor(r.getLong("open_minor"), r.getString("currency"))))
                .list();
        Map<InvoiceId, List<PaidAhead.Match>> matches =
                matches(items.stream().map(Item::id).toList());
        Map<PaymentId, List<PaidAhead>> found = new HashMap<>();
        items.forEach(item -> found.computeIfAbsent(item.payment(), none -> new ArrayList<>())
                .add(new PaidAhead(
                        item.id(),
                        item.reference(),
                        item.amount(),
                        item.open(),
                        matches.getOrDefault(item.id(), List.of()))));
        return found;
    }

    private Map<InvoiceId, List<PaidAhead.Match>> matches(List<InvoiceId> ahead) {
        record Row(
                long offset,
                String name,
                LocalDate on,
                @Nullable EntryId entry,
                InvoiceId of,
                Settled settled) {}
        if (ahead.isEmpty()) {
            return Map.of();
        }
        List<Row> rows = jdbc.sql("""
                        SELECT o.id AS offset_id, o.reference, o.ledger_date, o.entry_id, a.invoice_id AS of_ahead, s.id, s.invoice_id,
                          s.amount_minor, s.currency, i.kind AS item_kind
                        FROM settlement a JOIN credit_offset o ON o.id = a.offset_id AND o.undone_at IS NULL
                        JOIN settlement s ON s.offset_id = o.id JOIN invoice i ON i.id = s.invoice_id
                        WHERE a.invoice_id IN (:ahead) ORDER BY o.id, s.id
                        """)
                .param("ahead", ahead.stream().map(InvoiceId::value).toList())
                .query((r, n) -> new Row(
                        r.getLong("offset_id"),
                        r.getString("reference"),
                        r.getObject("ledger_date", LocalDate.class),
                        Optional.ofNullable(r.getObject("entry_id", Long.class))
                                .map(EntryId::new)
                                .orElse(null),
                        new InvoiceId(r.getLong("of_ahead")),
                        new Settled(
                                new SettlementId(r.getLong("id")),
                                new InvoiceId(r.getLong("invoice_id")),
                                InvoiceKind.valueOf(r.getString("item_kind")),
                                SettlementKind.PREPAYMENT,
                                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")))))
                .list();
        Map<EntryId, JournalEntry> entries = ledger.entries(rows.stream()
                .map(Row::entry)
                .filter(Objects::nonNull)
                .distinct()
                .toList());
        Map<Long, List<Row>> byOffset = new java.util.LinkedHashMap<>();
        rows.forEach(row -> byOffset.computeIfAbsent(row.offset(), none -> new ArrayList<>())
                .add(row));
        Map<InvoiceId, List<PaidAhead.Match>> found = new HashMap<>();
        byOffset.forEach((offset, own) -> {
            Row first = own.get(0);
            Optional<JournalEntry> entry = Optional.ofNullable(first.entry()).map(entries::get);
            found.computeIfAbsent(first.of(), none -> new ArrayList<>())
                    .add(new PaidAhead.Match(
                            offset,
                            first.name(),
                            first.on(),
                            entry,
                            own.stream().map(Row::settled).toList()));
        });
        return found;
    }

    /** Takes back what prepayments were matched with, in the deed that undoes their payment. */
    @Transactional
    public void unmatch(Actor by, List<PaidAhead> ended, LocalDate on) {
        ended.stream()
                .flatMap(ahead -> ahead.matches().stream())
                .forEach(match -> offsets.takeBack(by, match.offset(), on));
    }

    /** Ends them with the entry that undoes their payment; they are unmatched already. */
    @Transactional
    public void end(List<PaidAhead> ended, LocalDate on, EntryId entry) {
        if (ended.isEmpty()) {
            return;
        }
        Map<InvoiceId, Money> amounts = new HashMap<>();
        ended.forEach(ahead -> amounts.put(ahead.item(), ahead.amount()));
        settlements.cancel(amounts, on, entry);
        entities.flush();
        jdbc.sql("UPDATE invoice SET cancelled_on = :on WHERE id IN (:ids)")
                .param("on", on)
                .param("ids", amounts.keySet().stream().map(InvoiceId::value).toList())
                .update();
    }
}
