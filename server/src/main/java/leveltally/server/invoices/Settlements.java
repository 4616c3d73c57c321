package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
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
}
