package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Discount;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Invoices and credits: their arrival, their holds, and what settles them. */
@Service
public class Invoices {
    private final EntityManager entities;
    private final Vendors vendors;
    private final Ledger ledger;
    private final AuditTrail audit;

    Invoices(EntityManager entities, Vendors vendors, Ledger ledger, AuditTrail audit) {
        this.entities = entities;
        this.vendors = vendors;
        this.ledger = ledger;
        this.audit = audit;
    }

    /** Takes in an invoice or credit and posts it: debit its lines, credit payables; the other way round for a credit. */
    @Transactional
    public InvoiceId enter(Actor by, NewInvoice wanted) {
        by.mayDo(Deed.ENTER_INVOICE);
        Vendor vendor = vendors.get(wanted.vendor());
        Money amount =
                Money.sum(wanted.lines().stream().map(NewInvoice.Line::amount).toList(), vendor.currency());
        if (!amount.isPositive()) {
            throw Refusal.invalidField("amount-not-positive", "lines", "The lines must come to more than zero.");
        }
        ledger.shareOpenPeriod(wanted.ledgerDate());
        var schedule = vendor.terms().scheduleFor(wanted.invoiceDate());
        InvoiceEntity row = new InvoiceEntity();
        row.vendorId = vendor.id().value();
        row.remitToId = vendors.usualRemitTo(vendor.id());
        row.kind = wanted.kind();
        row.reference = wanted.reference();
        row.invoiceDate = wanted.invoiceDate();
        row.dueDate = schedule.dueDate();
        row.discountDate = schedule.discountDate().orElse(null);
        row.ledgerDate = wanted.ledgerDate();
        row.currency = vendor.currency().getCurrencyCode();
        row.amountMinor = amount.minor();
        row.discountableMinor = amount.minus(wanted.notDiscountable()).minor();
        row.discountRate = vendor.terms().discountRate();
        row.openMinor = amount.minor();
        row.payablesAccountId = wanted.payables().value();
        entities.persist(row);
        boolean credit = wanted.kind() == InvoiceKind.CREDIT;
        List<JournalLine> lines = new ArrayList<>();
        for (NewInvoice.Line line : wanted.lines()) {
            InvoiceLineEntity lineRow = new InvoiceLineEntity();
            lineRow.invoiceId = row.id;
            lineRow.accountId = line.account().value();
            lineRow.amountMinor = line.amount().minor();
            entities.persist(lineRow);
            lines.add(
                    credit
                            ? JournalLine.credit(line.account(), line.amount())
                            : JournalLine.debit(line.account(), line.amount()));
        }
        lines.add(
                credit ? JournalLine.debit(wanted.payables(), amount) : JournalLine.credit(wanted.payables(), amount));
        String text = (credit ? "Credit " : "Invoice ") + wanted.reference() + ", " + vendor.name();
        JournalEntry entry = new JournalEntry(wanted.ledgerDate(), text, lines);
        ledger.write(by, EntryKind.INVOICE, entry, EntryLinks.ofInvoice(row.id));
        audit.record(by, "enter invoice", "invoice " + row.id, Map.of("amount", amount.plain()));
        return new InvoiceId(row.id);
    }

    @Transactional
    public void hold(Actor by, InvoiceId id, String reason) {
        by.mayDo(Deed.HOLD);
        InvoiceEntity row = entities.find(InvoiceEntity.class, id.value());
        if (row == null) {
            throw unknown(id.value());
        }
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this invoice is held.");
        }
        row.holdReason = reason;
        audit.record(by, "hold invoice", "invoice " + row.id, Map.of("reason", reason));
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

    /** Settles what a posted payment's lines pay; the open amounts move with the rows (law L2). */
    @Transactional
    public void settle(List<ClaimLine> lines, LocalDate ledgerDate, long batch, long payment, EntryId entry) {
        for (ClaimLine line : lines) {
            settle(line, SettlementKind.CASH, line.cash(), ledgerDate, batch, payment, entry);
            settle(line, SettlementKind.DISCOUNT, line.discount(), ledgerDate, batch, payment, entry);
        }
    }

    private void settle(
            ClaimLine line,
            SettlementKind kind,
            Money amount,
            LocalDate ledgerDate,
            long batch,
            long payment,
            EntryId entry) {
        if (!amount.isZero()) {
            SettlementEntity row = new SettlementEntity();
            row.invoiceId = line.invoice().value();
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

    /** Brings back what a payment settled, by a dated reverse row for each of its rows. */
    @Transactional
    public void bringBack(long payment, LocalDate ledgerDate, EntryId entry) {
        List<SettlementEntity> rows = entities.createQuery(
                        "select s from SettlementEntity s where s.paymentId = :payment and s.reversesId is null",
                        SettlementEntity.class)
                .setParameter("payment", payment)
                .getResultList();
        for (SettlementEntity row : rows) {
            SettlementEntity reverse = new SettlementEntity();
            reverse.invoiceId = row.invoiceId;
            reverse.kind = row.kind;
            reverse.currency = row.currency;
            reverse.amountMinor = -row.amountMinor;
            reverse.ledgerDate = ledgerDate;
            reverse.batchId = row.batchId;
            reverse.paymentId = payment;
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
                Money.ofMinor(row.discountTakenMinor, currency));
        return new OpenInvoice(
                new InvoiceId(row.id),
                row.reference,
                row.invoiceDate,
                row.dueDate,
                row.ledgerDate,
                amount,
                open,
                discount);
    }

    /** Why an id leads nowhere, in words. */
    public static Refusal unknown(long id) {
        return Refusal.notFound("no-invoice", "There is no invoice with entry number " + id + ".");
    }
}
