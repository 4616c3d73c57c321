package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.ArrivalEntry;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenHistory;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.Role;
import leveltally.core.terms.Discount;
import leveltally.core.terms.Terms;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Invoices and credits: their arrival, their holds, and what settles them. */
@Service
public class Invoices {
    private static final int LOCKED_AT_ONCE = 2_000;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final Ledger ledger;
    private final AuditTrail audit;

    Invoices(EntityManager entities, JdbcClient jdbc, Vendors vendors, Ledger ledger, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.ledger = ledger;
        this.audit = audit;
    }

    /** Takes in an invoice or credit and posts it: debit its lines, credit payables; the other way round for a credit. */
    @Transactional
    public InvoiceId enter(Actor by, NewInvoice wanted) {
        by.mayDo(Deed.ENTER_INVOICE);
        Vendor vendor = vendors.get(wanted.vendor());
        if (wanted.kind() == InvoiceKind.PREPAYMENT) {
            throw Refusal.invalidField(
                    "no-prepayments",
                    "kind",
                    "A prepayment cannot be entered here, because nothing can pay it yet. Enter an invoice or a credit.");
        }
        if (wanted.usableFrom() != null && wanted.kind() != InvoiceKind.CREDIT) {
            throw Refusal.invalidField(
                    "usable-from-credits-only",
                    "usableFrom",
                    "Only a credit has a day from which it is usable. Leave it empty for an invoice.");
        }
        refuseKnown(wanted, vendor);
        refuseUnknownAccounts(wanted);
        ledger.shareOpenPeriod(wanted.ledgerDate());
        InvoiceId id = write(by, wanted, vendor, vendors.usualRemitTo(vendor.id()), null);
        Money amount = wanted.amount(vendor.currency());
        audit.record(by, "enter invoice", "invoice " + id.value(), Map.of("amount", amount.plain()));
        return id;
    }

    /** The payables account of a vendor's next invoice: as its last one, or as others in its currency. */
    @Transactional(readOnly = true)
    public AccountId payablesOf(Vendor vendor) {
        return jdbc.sql("""
                        (SELECT payables_account_id, 1 AS way FROM invoice WHERE vendor_id = :vendor
                          ORDER BY id DESC LIMIT 1)
                        UNION ALL
                        (SELECT payables_account_id, 2 FROM invoice WHERE currency = :currency AND is_open = 1
                          AND kind = 'INVOICE' LIMIT 1)
                        UNION ALL
                        (SELECT id, 3 FROM ledger_account WHERE kind = 'PAYABLES' ORDER BY code LIMIT 1)
                        ORDER BY way LIMIT 1
                        """)
                .param("vendor", vendor.id().value())
                .param("currency", vendor.currency().getCurrencyCode())
                .query((r, n) -> new AccountId(r.getLong(1)))
                .optional()
                .orElseThrow(() -> Refusal.conflict(
                        "no-payables", "There is no payables account in the ledger yet. An administrator adds it."));
    }

    /** One invoice of many, with what was looked up for all of them. */
    public record Arrival(NewInvoice invoice, Vendor vendor, long remitTo) {}

    /**
     * Takes in many at once; their periods are shared and one record tells of them all.
     *
     * @param importId the file they came with; whoever had a hand in it approves no payment of them
     */
    @Transactional
    public List<InvoiceId> enterAll(Actor by, List<Arrival> arrivals, String from, long importId) {
        by.mayDo(Deed.ENTER_INVOICE);
        arrivals.stream()
                .map(arrival -> arrival.invoice().ledgerDate().withDayOfMonth(1))
                .distinct()
                .sorted()
                .forEach(ledger::shareOpenPeriod);
        List<InvoiceId> ids = new ArrayList<>();
        for (Arrival arrival : arrivals) {
            ids.add(write(by, arrival.invoice(), arrival.vendor(), arrival.remitTo(), importId));
        }
        entities.flush();
        entities.clear();
        if (!ids.isEmpty()) {
            audit.record(
                    by,
                    "bring in invoices",
                    from,
                    Map.of("count", ids.size(), "first", ids.get(0).value()));
        }
        return ids;
    }

    private void refuseUnknownAccounts(NewInvoice wanted) {
        Set<Long> known = ledger.accountNames().keySet();
        for (NewInvoice.Line line : wanted.lines()) {
            if (!known.contains(line.account().value())) {
                throw Refusal.invalidField(
                        "no-account",
                        "lines",
                        "A line names an account the ledger does not have. Choose one by its code.");
            }
        }
    }

    private void refuseKnown(NewInvoice wanted, Vendor vendor) {
        String reference = wanted.reference().strip();
        if (reference.isEmpty() || reference.length() > 40) {
            throw Refusal.invalidField(
                    "reference-missing",
                    "reference",
                    "The vendor's reference is missing or longer than 40 characters.");
        }
        jdbc.sql("SELECT id FROM invoice WHERE vendor_id = :vendor AND kind = :kind AND reference = :reference")
                .param("vendor", vendor.id().value())
                .param("kind", wanted.kind().name())
                .param("reference", reference)
                .query(Long.class)
                .optional()
                .ifPresent(known -> {
                    throw Refusal.invalidField(
                            "known-already",
                            "reference",
                            vendor.name() + " " + reference + " is here already as entry " + known
                                    + ". Check the paper; a second one needs a reference of its own.");
                });
    }

    /** Posts what arrived, with its own terms and due date, or the vendor's where it has none. */
    private InvoiceId write(Actor by, NewInvoice wanted, Vendor vendor, long remitTo, @Nullable Long importId) {
        boolean credit = wanted.kind() == InvoiceKind.CREDIT;
        String text = (credit ? "Credit " : "Invoice ") + wanted.reference() + ", " + vendor.name();
        List<ArrivalEntry.Line> lines = wanted.lines().stream()
                .map(line -> new ArrivalEntry.Line(line.account(), line.amount()))
                .toList();
        JournalEntry entry = ArrivalEntry.of(wanted.ledgerDate(), text, credit, lines, wanted.payables());
        Money amount = wanted.amount(vendor.currency());
        Money discountable = Discount.discountable(amount, wanted.notDiscountable());
        Terms terms = wanted.termsOr(vendor.terms());
        Terms.Schedule schedule = terms.scheduleFor(wanted.invoiceDate(), wanted.dueDate());
        // a discount that rounds to nothing is none
        boolean earns = schedule.discountDate().isPresent()
                && Discount.full(discountable, terms.discountRate()).isPositive();
        InvoiceEntity row = new InvoiceEntity();
        row.vendorId = vendor.id().value();
        row.remitToId = remitTo;
        row.kind = wanted.kind();
        row.reference = wanted.reference().strip();
        row.ownCheck = wanted.ownCheck();
        row.importId = importId;
        row.usableFrom = wanted.usableFrom();
        row.invoiceDate = wanted.invoiceDate();
        row.dueDate = schedule.dueDate();
        row.discountDate = earns ? schedule.discountDate().get() : null;
        row.ledgerDate = wanted.ledgerDate();
        row.currency = vendor.currency().getCurrencyCode();
        row.amountMinor = amount.minor();
        row.discountableMinor = discountable.minor();
        row.discountRate = earns ? terms.discountRate() : BigDecimal.ZERO;
        row.openMinor = amount.minor();
        row.openSince = wanted.ledgerDate();
        row.payablesAccountId = wanted.payables().value();
        entities.persist(row);
        for (NewInvoice.Line line : wanted.lines()) {
            InvoiceLineEntity lineRow = new InvoiceLineEntity();
            lineRow.invoiceId = row.id;
            lineRow.accountId = line.account().value();
            lineRow.amountMinor = line.amount().minor();
            lineRow.job = line.job();
            entities.persist(lineRow);
        }
        ledger.write(by, EntryKind.INVOICE, entry, EntryLinks.ofInvoice(row.id));
        return new InvoiceId(row.id);
    }

    /** Holds an invoice; on one that is held already the first holder stays, and both reasons stand. */
    @Transactional
    public void hold(Actor by, InvoiceId id, String reason) {
        by.mayDo(Deed.HOLD);
        InvoiceEntity row = held(id);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this invoice is held.");
        }
        String first = row.holdReason;
        if (first == null) {
            row.heldBy = by.person().value();
            row.holdReason = reason.strip();
        } else {
            String both = first + "; " + reason.strip();
            row.holdReason = both.substring(0, Math.min(200, both.length()));
        }
        audit.record(by, "hold invoice", "invoice " + row.id, Map.of("reason", reason.strip()));
    }

    /** Ends the hold of an invoice: a controller, or whoever set it; a hand in the batch it stands in (law L7). */
    @Transactional
    public void release(Actor by, InvoiceId id, String reason) {
        by.mayDo(Deed.HOLD);
        InvoiceEntity row = held(id);
        String before = row.holdReason;
        if (before == null) {
            throw Refusal.conflict("not-held", "Entry " + row.id + " is not held. Look at it again.");
        }
        Long holder = row.heldBy;
        if (!by.roles().contains(Role.CONTROLLER)
                && (holder == null || holder != by.person().value())) {
            throw Refusal.notAllowed(
                    "not-your-hold", "Only whoever set this hold, or a controller, releases it. Ask one of them.");
        }
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this invoice may be paid.");
        }
        try {
            jdbc.sql("INSERT IGNORE INTO invoice_release (invoice_id, person_id) VALUES (:invoice, :person)")
                    .param("invoice", row.id)
                    .param("person", by.person().value())
                    .update();
        } catch (DataAccessException lawL7) {
            throw Refusal.notAllowed(
                    "own-approval",
                    "You approved the payment of this invoice, so somebody else must release its hold.");
        }
        row.holdReason = null;
        row.heldBy = null;
        audit.record(by, "release invoice", "invoice " + row.id, Map.of("before", before, "reason", reason.strip()));
    }

    private InvoiceEntity held(InvoiceId id) {
        InvoiceEntity row = entities.find(InvoiceEntity.class, id.value());
        if (row == null) {
            throw unknown(id.value());
        }
        entities.refresh(row, LockModeType.PESSIMISTIC_WRITE);
        return row;
    }

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
                    .query((r, n) -> open.put(new InvoiceId(r.getLong(1)), Money.ofMinor(r.getLong(2), r.getString(3))))
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
                        SELECT i.id, i.reference, i.ledger_date, i.amount_minor, i.currency, s.ledger_date,
                          SUM(s.amount_minor)
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
                    InvoiceId id = new InvoiceId(r.getLong(1));
                    LocalDate day = r.getObject(6, LocalDate.class);
                    if (day != null) {
                        rows.computeIfAbsent(id, none -> new java.util.HashMap<>())
                                .put(day, Money.ofMinor(r.getLong(7), r.getString(5)));
                    }
                    late.put(
                            id,
                            new OpenHistory(
                                    r.getString(2),
                                    r.getObject(3, LocalDate.class),
                                    Money.ofMinor(r.getLong(4), r.getString(5)),
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
        Map<InvoiceId, OpenCredit> found = new LinkedHashMap<>();
        rows(ids).stream()
                .filter(row -> row.kind == InvoiceKind.CREDIT && row.openMinor > 0)
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

    /** Settles the invoices and credits a posted payment's lines pay; the open amounts move with the rows (law L2). */
    @Transactional
    public void settle(List<ClaimLine> lines, LocalDate ledgerDate, long batch, long payment, EntryId entry) {
        for (ClaimLine line : lines) {
            line.item().ifPresent(item -> {
                settle(item, SettlementKind.CASH, line.cash(), ledgerDate, batch, payment, entry);
                settle(item, SettlementKind.DISCOUNT, line.discount(), ledgerDate, batch, payment, entry);
                settle(item, SettlementKind.CREDIT, line.credit(), ledgerDate, batch, payment, entry);
            });
        }
    }

    private void settle(
            InvoiceId item,
            SettlementKind kind,
            Money amount,
            LocalDate ledgerDate,
            long batch,
            long payment,
            EntryId entry) {
        if (!amount.isZero()) {
            SettlementEntity row = new SettlementEntity();
            row.invoiceId = item.value();
            row.kind = kind;
            row.currency = amount.currency().getCurrencyCode();
            row.amountMinor = amount.minor();
            row.ledgerDate = ledgerDate;
            row.batchId = batch;
            row.paymentId = payment;
            row.entryId = entry.value();
            entities.persist(row);
        }
    }

    /** What a payment settled and nothing undid since. */
    @Transactional(readOnly = true)
    public List<Settled> settledBy(long payment) {
        return entities.createQuery("""
                        select s from SettlementEntity s where s.paymentId = :payment and s.reversesId is null
                        and not exists (select 1 from SettlementEntity r where r.reversesId = s.id) order by s.id
                        """, SettlementEntity.class)
                .setParameter("payment", payment)
                .getResultStream()
                .map(row -> new Settled(
                        new SettlementId(row.id),
                        new InvoiceId(row.invoiceId),
                        Money.ofMinor(row.amountMinor, row.currency)))
                .toList();
    }

    /** Undoes these rows, by a dated row that mirrors each of them. */
    @Transactional
    public void undo(List<Settled> settled, LocalDate ledgerDate, EntryId entry) {
        List<SettlementEntity> rows = entities.createQuery(
                        "select s from SettlementEntity s where s.id in :ids order by s.id", SettlementEntity.class)
                .setParameter(
                        "ids", settled.stream().map(row -> row.id().value()).toList())
                .getResultList();
        for (SettlementEntity row : rows) {
            SettlementEntity reverse = new SettlementEntity();
            reverse.invoiceId = row.invoiceId;
            reverse.kind = row.kind;
            reverse.currency = row.currency;
            reverse.amountMinor = -row.amountMinor;
            reverse.ledgerDate = ledgerDate;
            reverse.batchId = row.batchId;
            reverse.paymentId = row.paymentId;
            reverse.entryId = entry.value();
            reverse.reversesId = row.id;
            entities.persist(reverse);
        }
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
