package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The rows that settle invoices and credits, and those that undo them (law L2). */
@Service
public class Settlements {
    private final EntityManager entities;

    Settlements(EntityManager entities) {
        this.entities = entities;
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

    /** What each of these payments settled and nothing undid since. */
    @Transactional(readOnly = true)
    public Map<PaymentId, List<Settled>> settledBy(Collection<PaymentId> payments) {
        if (payments.isEmpty()) {
            return Map.of();
        }
        record Row(SettlementEntity row, InvoiceKind kind) {}
        return entities.createQuery("""
                        select s, i.kind from SettlementEntity s join InvoiceEntity i on i.id = s.invoiceId
                        where s.paymentId in :payments and s.reversesId is null
                        and not exists (select 1 from SettlementEntity r where r.reversesId = s.id) order by s.id
                        """, Object[].class)
                .setParameter(
                        "payments", payments.stream().map(PaymentId::value).toList())
                .getResultStream()
                .map(found -> new Row((SettlementEntity) found[0], (InvoiceKind) found[1]))
                .collect(Collectors.groupingBy(
                        one -> new PaymentId(Objects.requireNonNull(one.row().paymentId)),
                        Collectors.mapping(one -> settled(one.row(), one.kind()), Collectors.toList())));
    }

    private static Settled settled(SettlementEntity row, InvoiceKind kind) {
        return new Settled(
                new SettlementId(row.id),
                new InvoiceId(row.invoiceId),
                kind,
                row.kind,
                Money.ofMinor(row.amountMinor, row.currency));
    }

    /** Cancels what is open of invoices, by so much of each, with the entry that says against which accounts. */
    @Transactional
    public void cancel(Map<InvoiceId, Money> amounts, LocalDate ledgerDate, EntryId entry) {
        amounts.forEach((item, amount) -> take(item, SettlementKind.CANCELLATION, amount, ledgerDate, entry));
    }

    /** Takes something off an item that no payment pays, with the entry that says how. */
    SettlementId take(InvoiceId item, SettlementKind kind, Money amount, LocalDate ledgerDate, EntryId entry) {
        SettlementEntity row = new SettlementEntity();
        row.invoiceId = item.value();
        row.kind = kind;
        row.currency = amount.currency().getCurrencyCode();
        row.amountMinor = amount.minor();
        row.ledgerDate = ledgerDate;
        row.entryId = entry.value();
        entities.persist(row);
        return new SettlementId(row.id);
    }

    /** Rows that an entry undoes on its day. */
    public record Undone(List<Settled> settled, LocalDate ledgerDate, EntryId entry) {}

    /** Undoes rows, by a dated row that mirrors each of them; of however many entries in one statement. */
    @Transactional
    public void undo(List<Undone> all) {
        Map<Long, SettlementEntity> rows = entities.createQuery(
                        "select s from SettlementEntity s where s.id in :ids", SettlementEntity.class)
                .setParameter(
                        "ids",
                        all.stream()
                                .flatMap(one -> one.settled().stream())
                                .map(row -> row.id().value())
                                .toList())
                .getResultStream()
                .collect(Collectors.toMap(row -> row.id, row -> row));
        for (Undone one : all) {
            one.settled().stream()
                    .map(settled -> rows.get(settled.id().value()))
                    .forEach(row -> entities.persist(mirrored(row, one)));
        }
    }

    private static SettlementEntity mirrored(SettlementEntity row, Undone by) {
        SettlementEntity reverse = new SettlementEntity();
        reverse.invoiceId = row.invoiceId;
        reverse.kind = row.kind;
        reverse.currency = row.currency;
        reverse.amountMinor = -row.amountMinor;
        reverse.ledgerDate = by.ledgerDate();
        reverse.batchId = row.batchId;
        reverse.paymentId = row.paymentId;
        reverse.entryId = by.entry().value();
        reverse.reversesId = row.id;
        return reverse;
    }
}
