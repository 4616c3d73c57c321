package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchState;
import leveltally.core.invoices.Cancelling;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Discount;
import leveltally.core.terms.Terms;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What may still become of a posted document: cancelled, corrected by another, or due and sent otherwise. */
@Service
public class InvoiceChanging {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Entering entering;
    private final Settlements settlements;
    private final Ledger ledger;
    private final Periods periods;
    private final AuditTrail audit;
    private final ApplicationEventPublisher events;

    InvoiceChanging(
            EntityManager entities,
            JdbcClient jdbc,
            Entering entering,
            Settlements settlements,
            Ledger ledger,
            Periods periods,
            AuditTrail audit,
            ApplicationEventPublisher events) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.entering = entering;
        this.settlements = settlements;
        this.ledger = ledger;
        this.periods = periods;
        this.audit = audit;
        this.events = events;
    }

    /** Told within the transaction: what a draft reckons with is something else now. */
    public record Changed(Actor by, InvoiceId invoice, String what) {}

    /** Reverses a document of which nothing is paid or reserved; it stays, and can be looked up. */
    @Transactional
    public void cancel(Actor by, InvoiceId id, LocalDate on, String reason) {
        by.mayDo(Deed.CHANGE_INVOICE);
        String why = given(reason, "Say why it is cancelled.");
        reverse(by, id, on);
        audit.record(by, "cancel invoice", subject(id), Map.of("on", on.toString(), "reason", why));
    }

    /** Reverses a document and enters it anew, dated, linked both ways; both or none. */
    @Transactional
    public InvoiceId correct(Actor by, InvoiceId id, LocalDate on, NewInvoice anew, String reason) {
        by.mayDo(Deed.CHANGE_INVOICE);
        String why = given(reason, "Say what was wrong with it.");
        reverse(by, id, on);
        InvoiceId made = entering.enter(by, anew, id);
        audit.record(
                by, "correct invoice", subject(id), Map.of("on", on.toString(), "reason", why, "by", made.value()));
        return made;
    }

    private void reverse(Actor by, InvoiceId id, LocalDate on) {
        Cancelling.Standing standing = locked(id);
        Cancelling cancelling = Cancelling.of(standing, on, by.today());
        periods.shareForNew(by, on);
        EntryLinks links = new EntryLinks(null, null, id.value(), entryOf(id).value());
        EntryId entry = ledger.write(by, EntryKind.CANCELLATION, cancelling.entry(), links);
        settlements.cancel(Map.of(id, cancelling.amount()), on, entry);
        entities.flush();
        jdbc.sql("UPDATE invoice SET cancelled_on = ? WHERE id = ?")
                .params(on, id.value())
                .update();
    }

    private Cancelling.Standing locked(InvoiceId id) {
        record Row(
                InvoiceKind kind,
                String name,
                Money amount,
                Money open,
                LedgerDays days,
                @Nullable String batch,
                boolean cancelled) {}
        Row row = jdbc.sql("""
                        SELECT i.kind, CONCAT(CONCAT(UPPER(LEFT(i.kind, 1)), LOWER(SUBSTRING(i.kind, 2))), ' ', i.reference, ' of ', v.name)
                            AS name, i.amount_minor, i.open_minor, i.currency, i.ledger_date, i.open_since, i.cancelled_on IS NOT NULL AS cancelled,
                          b.name AS batch
                        FROM invoice i JOIN vendor v ON v.id = i.vendor_id LEFT JOIN reservation r ON r.invoice_id = i.id
                        LEFT JOIN batch b ON b.id = r.batch_id WHERE i.id = ? FOR UPDATE
                        """)
                .param(id.value())
                .query((r, n) -> new Row(
                        InvoiceKind.valueOf(r.getString("kind")),
                        r.getString("name"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        Money.ofMinor(r.getLong("open_minor"), r.getString("currency")),
                        new LedgerDays(
                                r.getObject("ledger_date", LocalDate.class),
                                r.getObject("open_since", LocalDate.class)),
                        r.getString("batch"),
                        r.getBoolean("cancelled")))
                .optional()
                .orElseThrow(() -> OpenItems.unknown(id.value()));
        mustArrive(row.kind(), row.name());
        return new Cancelling.Standing(
                row.name(),
                row.amount(),
                row.open(),
                row.days(),
                row.batch(),
                row.cancelled(),
                ledger.entry(entryOf(id)));
    }

    /** A prepayment came by its payment, and goes with it. */
    private static void mustArrive(InvoiceKind kind, String name) {
        if (kind == InvoiceKind.PREPAYMENT) {
            throw Refusal.conflict(
                    "paid-ahead",
                    name
                            + " was paid ahead, so nothing about it changes by itself. Undo its payment, or write down what the"
                            + " vendor sent back.");
        }
    }

    /** The entry with which it arrived. */
    private EntryId entryOf(InvoiceId id) {
        return new EntryId(
                jdbc.sql("SELECT id FROM journal_entry WHERE invoice_id = ? AND kind = ? AND reverses_id IS NULL")
                        .params(id.value(), EntryKind.INVOICE.name())
                        .query(Long.class)
                        .optional()
                        .orElseThrow(
                                () -> Refusal.conflict(
                                        "no-entry",
                                        "This document was open before we began, and has no entry of its own. Enter a credit against it.")));
    }

    /**
     * What can change about a document while no batch beyond a draft has it.
     *
     * @param terms as they are written; empty for those it has
     * @param dueDate null for what the terms make of its date
     */
    public record Otherwise(String terms, @Nullable LocalDate dueDate, long remitTo, boolean ownCheck, String reason) {}

    /** Changes when and how a document is paid, with a reason; a draft that has it is reckoned anew. */
    @Transactional
    public void change(Actor by, InvoiceId id, Otherwise wanted) {
        by.mayDo(Deed.CHANGE_INVOICE);
        String why = given(wanted.reason(), "Say why it is paid otherwise.");
        InvoiceEntity row = entities.find(InvoiceEntity.class, id.value());
        if (row == null) {
            throw OpenItems.unknown(id.value());
        }
        entities.refresh(row, jakarta.persistence.LockModeType.PESSIMISTIC_WRITE);
        mustBeChangeable(row);
        Dated dated = dated(row, wanted);
        List<String> what = differences(row, dated, wanted);
        if (what.isEmpty()) {
            return;
        }
        mustBeOfItsVendor(row, wanted.remitTo());
        jdbc.sql(
                        "UPDATE invoice SET due_date = ?, discount_date = ?, discount_rate = ?, remit_to_id = ?, own_check = ?,"
                                + " version = version + 1 WHERE id = ?")
                .params(
                        dated.due(),
                        dated.discountUntil(),
                        dated.rate(),
                        wanted.remitTo(),
                        wanted.ownCheck(),
                        id.value())
                .update();
        entities.refresh(row);
        events.publishEvent(new Changed(by, id, String.join(", ", what) + " of " + row.reference));
        audit.record(by, "change invoice", subject(id), Map.of("what", what, "reason", why));
    }

    private void mustBeChangeable(InvoiceEntity row) {
        mustArrive(row.kind, row.reference);
        if (row.openMinor == 0) {
            throw Refusal.conflict("settled", row.reference + " is settled, so nothing about its payment can change.");
        }
        jdbc.sql("SELECT b.name FROM reservation r JOIN batch b ON b.id = r.batch_id WHERE r.invoice_id = ?"
                        + " AND b.state <> ?")
                .params(row.id, BatchState.DRAFT.name())
                .query(String.class)
                .optional()
                .ifPresent(batch -> {
                    throw Refusal.conflict(
                            "sent-already",
                            row.reference + " stands in the batch “" + batch
                                    + "”, which was sent for approval as it is. Take it out there first.");
                });
    }

    private record Dated(LocalDate due, @Nullable LocalDate discountUntil, java.math.BigDecimal rate) {}

    private static Dated dated(InvoiceEntity row, Otherwise wanted) {
        if (wanted.terms().isBlank()) {
            return new Dated(
                    wanted.dueDate() == null ? row.dueDate : wanted.dueDate(), row.discountDate, row.discountRate);
        }
        Terms terms = Terms.typed(wanted.terms());
        Terms.Schedule schedule = terms.scheduleFor(row.invoiceDate, wanted.dueDate());
        boolean earns = schedule.discountDate().isPresent()
                && Discount.full(Money.ofMinor(row.discountableMinor, row.currency), terms.discountRate())
                        .isPositive();
        return new Dated(
                schedule.dueDate(),
                earns ? schedule.discountDate().get() : null,
                earns ? terms.discountRate() : java.math.BigDecimal.ZERO);
    }

    private static List<String> differences(InvoiceEntity row, Dated dated, Otherwise wanted) {
        Map<String, Boolean> differs = new HashMap<>();
        differs.put("due " + Dates.inWords(dated.due()), !dated.due().equals(row.dueDate));
        differs.put(
                dated.discountUntil() == null
                        ? "no discount"
                        : "discount of "
                                + dated.rate()
                                        .movePointRight(2)
                                        .stripTrailingZeros()
                                        .toPlainString() + "% until " + Dates.inWords(dated.discountUntil()),
                !java.util.Objects.equals(dated.discountUntil(), row.discountDate)
                        || dated.rate().compareTo(row.discountRate) != 0);
        differs.put("another address", wanted.remitTo() != row.remitToId);
        differs.put(wanted.ownCheck() ? "own check" : "no own check", wanted.ownCheck() != row.ownCheck);
        List<String> what = new ArrayList<>();
        differs.forEach((words, different) -> {
            if (different) {
                what.add(words);
            }
        });
        what.sort(null);
        return what;
    }

    private void mustBeOfItsVendor(InvoiceEntity row, long remitTo) {
        if (remitTo != row.remitToId
                && jdbc.sql("SELECT COUNT(*) FROM remit_to WHERE id = ? AND vendor_id = ? AND in_force")
                                .params(remitTo, row.vendorId)
                                .query(Long.class)
                                .single()
                        == 0) {
            throw Refusal.invalidField(
                    "other-vendor",
                    "remitTo",
                    "This is no address of that vendor that may be paid to. Choose one of its own.");
        }
    }

    private static String given(String reason, String missing) {
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", missing);
        }
        return reason.strip();
    }

    private static String subject(InvoiceId id) {
        return "invoice " + id.value();
    }
}
