package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.invoices.ArrivalEntry;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Discount;
import leveltally.core.terms.Terms;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The arrival of invoices and credits, which posts them. */
@Service
public class Entering {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final Ledger ledger;
    private final Periods periods;
    private final Accounts accounts;
    private final Prepayments prepayments;
    private final AuditTrail audit;

    Entering(
            EntityManager entities,
            JdbcClient jdbc,
            Vendors vendors,
            Ledger ledger,
            Periods periods,
            Accounts accounts,
            Prepayments prepayments,
            AuditTrail audit) {
        this.prepayments = prepayments;
        this.entities = entities;
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.ledger = ledger;
        this.periods = periods;
        this.accounts = accounts;
        this.audit = audit;
    }

    /**
     * Takes in an invoice or credit and posts it: debit its lines, credit payables; the other way round for a credit. What was
     * paid ahead under its reference is matched with it.
     */
    @Transactional
    public InvoiceId enter(Actor by, NewInvoice wanted) {
        return enter(by, wanted, null);
    }

    /** @param corrects the document it is entered anew for, which is cancelled; null where it corrects none */
    InvoiceId enter(Actor by, NewInvoice wanted, @Nullable InvoiceId corrects) {
        by.mayDo(Deed.ENTER_INVOICE);
        Vendor vendor = vendors.taking(wanted.vendor());
        if (wanted.kind() == InvoiceKind.PREPAYMENT) {
            throw Refusal.invalidField(
                    "no-prepayments",
                    "kind",
                    "A prepayment is no document that arrives: it is there once something was paid ahead. Record that payment"
                            + " among those made elsewhere, or enter an invoice or a credit.");
        }
        if (wanted.usableFrom() != null && wanted.kind() != InvoiceKind.CREDIT) {
            throw Refusal.invalidField(
                    "usable-from-credits-only",
                    "usableFrom",
                    "Only a credit has a day from which it is usable. Leave it empty for an invoice.");
        }
        refuseKnown(wanted, vendor);
        accounts.mustTake(wanted.lines().stream().map(NewInvoice.Line::account).toList(), wanted.ledgerDate());
        periods.shareForNew(by, wanted.ledgerDate());
        InvoiceId id = write(by, wanted, vendor, vendors.usualRemitTo(vendor.id()), null, corrects);
        Money amount = wanted.amount();
        audit.record(
                by,
                "enter invoice",
                "invoice " + id.value(),
                Map.of("amount", amount.plain(), "currency", wanted.currency().getCurrencyCode()));
        prepayments.match(by, List.of(id));
        return id;
    }

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
                .forEach(month -> periods.shareForNew(by, month));
        List<InvoiceId> ids = new ArrayList<>();
        for (Arrival arrival : arrivals) {
            ids.add(write(by, arrival.invoice(), arrival.vendor(), arrival.remitTo(), importId, null));
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
        prepayments.match(by, ids);
        return ids;
    }

    private void refuseKnown(NewInvoice wanted, Vendor vendor) {
        String reference = wanted.reference().strip();
        if (reference.isEmpty() || reference.length() > 40) {
            throw Refusal.invalidField(
                    "reference-missing",
                    "reference",
                    "The vendor's reference is missing or longer than 40 characters.");
        }
        jdbc.sql("SELECT id FROM invoice WHERE vendor_id = :vendor AND kind = :kind"
                        + " AND standing_reference = :reference")
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
    private InvoiceId write(
            Actor by,
            NewInvoice wanted,
            Vendor vendor,
            long remitTo,
            @Nullable Long importId,
            @Nullable InvoiceId corrects) {
        boolean credit = wanted.kind() == InvoiceKind.CREDIT;
        String text = (credit ? "Credit " : "Invoice ") + wanted.reference() + ", " + vendor.name();
        List<ArrivalEntry.Line> lines = wanted.lines().stream()
                .map(line -> new ArrivalEntry.Line(line.account(), line.amount()))
                .toList();
        JournalEntry entry = ArrivalEntry.of(wanted.ledgerDate(), text, credit, lines, wanted.payables());
        Money amount = wanted.amount();
        Money discountable = Discount.discountable(amount, wanted.notDiscountable());
        Terms terms = wanted.termsOr(vendor.terms());
        Terms.Schedule schedule = terms.scheduleFor(wanted.invoiceDate(), wanted.dueDate());
        // a discount that rounds to nothing is none
        boolean earns = schedule.discountDate().isPresent()
                && Discount.full(discountable, terms.discountRate()).isPositive();
        InvoiceEntity row = new InvoiceEntity();
        row.correctsId = corrects == null ? null : corrects.value();
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
        row.currency = wanted.currency().getCurrencyCode();
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
}
