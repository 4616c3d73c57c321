package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OffsetEntry;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.invoices.Settling;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Settles invoices against credits, or against one prepayment, without a payment, and takes it back. */
@Service
public class Offsets {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final OpenItems openItems;
    private final Vendors vendors;
    private final Ledger ledger;
    private final Periods periods;
    private final AuditTrail audit;
    private final WorkIds ids;

    Offsets(
            EntityManager entities,
            JdbcClient jdbc,
            OpenItems openItems,
            Vendors vendors,
            Ledger ledger,
            Periods periods,
            AuditTrail audit,
            WorkIds ids) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.openItems = openItems;
        this.vendors = vendors;
        this.ledger = ledger;
        this.periods = periods;
        this.audit = audit;
        this.ids = ids;
    }

    /** What was done: {@code amount} left both sides. */
    public record Offset(long id, String reference, Money amount) {}

    /** Lays credits, or one prepayment, against invoices of one vendor, as far as the smaller side goes, on the business date. */
    @Transactional
    public Offset make(Actor by, VendorId of, List<InvoiceId> wanted, List<InvoiceId> credits) {
        by.mayDo(Deed.APPLY_CREDIT);
        periods.shareForNew(by, by.today());
        return lay(by, of, wanted, credits);
    }

    /** The same as part of another deed; the rows stay locked until it is done, so that no batch takes one of them meanwhile. */
    Offset lay(Actor by, VendorId of, List<InvoiceId> wanted, List<InvoiceId> credits) {
        Vendor vendor = vendors.get(of);
        List<InvoiceId> all = new ArrayList<>(wanted);
        all.addAll(credits);
        lock(all, vendor, by);
        List<OpenInvoice> owed = List.copyOf(openItems.stillOpen(wanted).values());
        List<OpenCredit> ahead = List.copyOf(openItems.openPrepayments(credits).values());
        List<OpenCredit> open = new ArrayList<>(openItems.openCredits(credits).values());
        if (ahead.size() + open.size() > 1 && !ahead.isEmpty()) {
            throw Refusal.invalid(
                    "prepayment-alone",
                    "A prepayment is matched by itself, so that it can be taken back by itself. Leave the other credits and"
                            + " prepayments out.");
        }
        open.addAll(ahead);
        if (owed.isEmpty() || open.isEmpty()) {
            throw Refusal.invalid(
                    "nothing-to-offset",
                    "An offset needs at least one open invoice and one open credit. Select both kinds.");
        }
        long currencies = Stream.concat(
                        owed.stream().map(OpenInvoice::open), open.stream().map(OpenCredit::open))
                .map(Money::currency)
                .distinct()
                .count();
        if (currencies > 1) {
            throw Refusal.invalid(
                    "several-currencies", "These are of several currencies. Offset one currency at a time.");
        }
        Settling settling = Settling.offset(owed, open);
        Map<InvoiceId, Money> amounts = new HashMap<>();
        settling.lines().forEach(line -> amounts.put(line.invoice().id(), line.credit()));
        settling.uses().forEach(use -> amounts.put(use.credit().id(), use.used()));
        openItems.mustBeOpenOn(by.today(), amounts);
        return write(by, vendor, settling, ahead.isEmpty() ? SettlementKind.CREDIT : SettlementKind.PREPAYMENT);
    }

    private Offset write(Actor by, Vendor vendor, Settling settling, SettlementKind kind) {
        List<InvoiceId> items = Stream.concat(
                        settling.lines().stream().map(line -> line.invoice().id()),
                        settling.uses().stream().map(use -> use.credit().id()))
                .toList();
        OffsetEntity row = new OffsetEntity();
        row.vendorId = vendor.id().value();
        row.id = ids.supply().next();
        row.reference = "O-" + row.id;
        row.currency = settling.credit().currency().getCurrencyCode();
        row.amountMinor = settling.credit().minor();
        row.ledgerDate = by.today();
        row.madeAt = by.now();
        row.madeBy = by.person().value();
        Optional<JournalEntry> entry = OffsetEntry.of(
                by.today(), "Offset " + row.reference + ", " + vendor.name(), settling, openItems.payables(items));
        entry.ifPresent(written -> row.entryId =
                ledger.write(by, EntryKind.OFFSET, written, EntryLinks.NONE).value());
        entities.persist(row);
        for (Settling.Line line : settling.lines()) {
            settle(row, kind, line.invoice().id(), line.credit());
        }
        for (Settling.Use use : settling.uses()) {
            settle(row, kind, use.credit().id(), use.used());
        }
        entities.flush();
        audit.record(
                by,
                kind == SettlementKind.PREPAYMENT ? "match prepayment" : "make offset",
                "offset " + row.id,
                Map.of("vendor", vendor.name(), "amount", settling.credit().plain()));
        return new Offset(row.id, row.reference, settling.credit());
    }

    /** Takes an offset back, dated {@code on}, a day from its own to today in an open period. */
    @Transactional
    public void undo(Actor by, long id, LocalDate on) {
        by.mayDo(Deed.APPLY_CREDIT);
        OffsetEntity row = standing(id);
        if (on.isBefore(row.ledgerDate) || on.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "undo-date",
                    "on",
                    "Offset " + row.reference + " can be taken back on a day from " + Dates.inWords(row.ledgerDate)
                            + " to today, " + Dates.inWords(by.today()) + ".");
        }
        periods.shareForNew(by, on);
        takeBack(by, row, on);
    }

    /** The same as part of the deed that undoes the payment of a prepayment, which shares the month and has looked at the day. */
    void takeBack(Actor by, long id, LocalDate on) {
        takeBack(by, standing(id), on);
    }

    private OffsetEntity standing(long id) {
        OffsetEntity row = entities.find(OffsetEntity.class, id);
        if (row == null) {
            throw Refusal.notFound("no-offset", "There is no such offset. Look at the vendor's page.");
        }
        entities.refresh(row, LockModeType.PESSIMISTIC_WRITE);
        if (row.undoneAt != null) {
            throw Refusal.conflict("undone-already", "Offset " + row.reference + " was taken back already.");
        }
        return row;
    }

    private void takeBack(Actor by, OffsetEntity row, LocalDate on) {
        Long written = row.entryId;
        Long turned = null;
        if (written != null) {
            JournalEntry entry = ledger.entry(new EntryId(written));
            EntryLinks links = new EntryLinks(null, null, null, written);
            turned = ledger.write(by, EntryKind.OFFSET, entry.reversed(on, "Taken back: " + entry.text()), links)
                    .value();
        }
        List<SettlementEntity> settled = entities.createQuery(
                        "select s from SettlementEntity s where s.offsetId = :offset and s.reversesId is null",
                        SettlementEntity.class)
                .setParameter("offset", row.id)
                .getResultList();
        for (SettlementEntity one : settled) {
            SettlementEntity reverse = settlement(row, one.kind, new InvoiceId(one.invoiceId));
            reverse.amountMinor = -one.amountMinor;
            reverse.reversesId = one.id;
            reverse.ledgerDate = on;
            reverse.entryId = turned;
            entities.persist(reverse);
        }
        row.undoneAt = by.now();
        row.undoneBy = by.person().value();
        audit.record(by, "undo offset", "offset " + row.id, Map.of("reference", row.reference, "date", on.toString()));
    }

    private void settle(OffsetEntity offset, SettlementKind kind, InvoiceId id, Money amount) {
        SettlementEntity row = settlement(offset, kind, id);
        row.amountMinor = amount.minor();
        entities.persist(row);
    }

    private static SettlementEntity settlement(OffsetEntity offset, SettlementKind kind, InvoiceId id) {
        SettlementEntity row = new SettlementEntity();
        row.invoiceId = id.value();
        row.kind = kind;
        row.currency = offset.currency;
        row.ledgerDate = offset.ledgerDate;
        row.offsetId = offset.id;
        row.entryId = offset.entryId;
        return row;
    }

    /** Everything of this vendor, free, not held, and usable by today. */
    private void lock(List<InvoiceId> ids, Vendor vendor, Actor by) {
        if (ids.isEmpty()) {
            return;
        }
        jdbc.sql("""
                        SELECT i.reference, i.vendor_id, i.hold_reason, i.usable_from, b.name
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.id IN (:ids) ORDER BY i.id FOR UPDATE
                        """).param("ids", ids.stream().map(InvoiceId::value).toList()).query((java.sql.ResultSet r) -> {
            String reference = r.getString("reference");
            if (r.getLong("vendor_id") != vendor.id().value()) {
                throw Refusal.invalid(
                        "other-vendor", reference + " is of another vendor. Offset one vendor at a time.");
            }
            if (r.getString("hold_reason") != null) {
                throw Refusal.conflict(
                        "held", reference + " is held: " + r.getString("hold_reason") + ". Release it first.");
            }
            if (r.getString("name") != null) {
                throw Refusal.conflict(
                        "in-another-batch",
                        reference + " is in the batch “" + r.getString("name") + "”. Take it out there first.");
            }
            LocalDate usable = r.getObject("usable_from", LocalDate.class);
            if (usable != null && usable.isAfter(by.today())) {
                throw Refusal.invalid("not-usable-yet", reference + " can be used from " + Dates.inWords(usable) + ".");
            }
        });
    }
}
