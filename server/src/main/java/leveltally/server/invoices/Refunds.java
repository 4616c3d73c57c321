package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Money a vendor sent back for a credit, or of what was paid ahead: cash is debited, the item's account credited, and the item
 * is used by as much.
 */
@Service
public class Refunds {
    private static final int LONGEST_REFERENCE = 60;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final Settlements settlements;
    private final OpenItems openItems;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final Periods periods;
    private final AuditTrail audit;

    Refunds(
            EntityManager entities,
            JdbcClient jdbc,
            WorkIds ids,
            Settlements settlements,
            OpenItems openItems,
            BankAccounts accounts,
            Ledger ledger,
            Periods periods,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.ids = ids;
        this.settlements = settlements;
        this.openItems = openItems;
        this.accounts = accounts;
        this.ledger = ledger;
        this.periods = periods;
        this.audit = audit;
    }

    /**
     * What came back.
     *
     * @param amount as it is typed
     * @param reference of the bank or the vendor
     */
    public record Received(BankAccountId account, String amount, LocalDate on, String reference) {}

    @Transactional
    public void receive(Actor by, InvoiceId id, Received wanted) {
        by.mayDo(Deed.CHANGE_INVOICE);
        InvoiceEntity credit = entities.find(InvoiceEntity.class, id.value());
        if (credit == null) {
            throw OpenItems.unknown(id.value());
        }
        entities.refresh(credit, jakarta.persistence.LockModeType.PESSIMISTIC_WRITE);
        BankAccount account = accounts.get(wanted.account());
        account.mustBeOpen();
        Money amount = Money.typed(wanted.amount(), account.currency(), "amount");
        String reference = wanted.reference().strip();
        mustBePossible(credit, account, amount, reference);
        if (wanted.on().isAfter(by.today())) {
            throw Refusal.invalidField(
                    "refund-date",
                    "on",
                    "Money is received today or before; " + Dates.inWords(wanted.on()) + " has not come.");
        }
        openItems.mustBeOpenOn(wanted.on(), Map.of(id, amount));
        periods.shareForNew(by, wanted.on());
        JournalEntry entry = new JournalEntry(
                wanted.on(),
                "Refund " + reference + " of " + credit.kind.words().toLowerCase(Locale.ROOT) + " " + credit.reference,
                List.of(
                        JournalLine.debit(account.cash(), amount),
                        JournalLine.credit(new AccountId(credit.payablesAccountId), amount)));
        EntryId written = ledger.write(by, EntryKind.REFUND, entry, EntryLinks.ofInvoice(id.value()));
        SettlementId row = settlements.take(id, SettlementKind.CASH, amount, wanted.on(), written);
        entities.flush();
        jdbc.sql("""
                        INSERT INTO credit_refund (id, invoice_id, bank_account_id, reference, currency, amount_minor, ledger_date,
                          entry_id, settlement_id, made_at, made_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                        """)
                .params(
                        ids.supply().next(),
                        id.value(),
                        account.id().value(),
                        reference,
                        account.currency().getCurrencyCode(),
                        amount.minor(),
                        wanted.on(),
                        written.value(),
                        row.value(),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        audit.record(
                by,
                "receive refund",
                "invoice " + id.value(),
                Map.of("amount", amount.plain(), "on", wanted.on().toString(), "reference", reference));
    }

    private void mustBePossible(InvoiceEntity credit, BankAccount account, Money amount, String reference) {
        if (credit.kind.raises()) {
            throw Refusal.conflict("no-credit", credit.reference + " is an invoice, so nothing of it comes back.");
        }
        if (reference.isEmpty() || reference.length() > LONGEST_REFERENCE) {
            throw Refusal.invalidField(
                    "refund-reference", "reference", "Type the reference of the money, in at most 60 characters.");
        }
        if (!credit.currency.equals(account.currency().getCurrencyCode())) {
            throw Refusal.invalidField(
                    "other-currency",
                    "account",
                    "It is in " + credit.currency + ", the account in "
                            + account.currency().getCurrencyCode() + ".");
        }
        Money open = Money.ofMinor(credit.openMinor, credit.currency);
        if (!amount.isPositive() || amount.compareTo(open) > 0) {
            throw Refusal.invalidField(
                    "refund-amount", "amount", "Between 0.01 and " + open + ", which is open of it, can come back.");
        }
        jdbc.sql("SELECT b.name FROM reservation r JOIN batch b ON b.id = r.batch_id WHERE r.invoice_id = ?")
                .param(credit.id)
                .query(String.class)
                .optional()
                .ifPresent(batch -> {
                    throw Refusal.conflict(
                            "in-another-batch",
                            credit.reference + " stands in the batch “" + batch + "”. Take it out there first.");
                });
    }

    /** Takes a refund back that was written down by mistake, on a day from its own to today. */
    @Transactional
    public void undo(Actor by, long id, LocalDate on, String reason) {
        by.mayDo(Deed.CHANGE_INVOICE);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why it is taken back.");
        }
        record Row(
                long invoice,
                InvoiceKind kind,
                long entry,
                long settlement,
                LocalDate date,
                Money amount,
                @Nullable Long undone) {}
        Row row = jdbc.sql(
                        "SELECT f.invoice_id, i.kind, f.entry_id, f.settlement_id, f.ledger_date, f.amount_minor, f.currency,"
                                + " f.undone_entry_id FROM credit_refund f JOIN invoice i ON i.id = f.invoice_id WHERE f.id = ?"
                                + " FOR UPDATE")
                .param(id)
                .query((r, n) -> new Row(
                        r.getLong("invoice_id"),
                        InvoiceKind.valueOf(r.getString("kind")),
                        r.getLong("entry_id"),
                        r.getLong("settlement_id"),
                        r.getObject("ledger_date", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        r.getObject("undone_entry_id", Long.class)))
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-refund", "There is no such refund. Look at the credit again."));
        if (row.undone() != null) {
            throw Refusal.conflict("undone-already", "This refund was taken back already.");
        }
        if (on.isBefore(row.date()) || on.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "undo-date",
                    "on",
                    "It can be taken back on a day from " + Dates.inWords(row.date()) + " to today, "
                            + Dates.inWords(by.today()) + ".");
        }
        periods.shareForNew(by, on);
        JournalEntry entry = ledger.entry(new EntryId(row.entry()));
        EntryLinks links = new EntryLinks(null, null, row.invoice(), row.entry());
        EntryId turned = ledger.write(by, EntryKind.REFUND, entry.reversed(on, "Taken back: " + entry.text()), links);
        Settled mirrored = new Settled(
                new SettlementId(row.settlement()),
                new InvoiceId(row.invoice()),
                row.kind(),
                SettlementKind.CASH,
                row.amount());
        settlements.undo(List.of(new Settlements.Undone(List.of(mirrored), on, turned)));
        entities.flush();
        jdbc.sql("UPDATE credit_refund SET undone_entry_id = ? WHERE id = ?")
                .params(turned.value(), id)
                .update();
        audit.record(
                by,
                "take back refund",
                "invoice " + row.invoice(),
                Map.of("amount", row.amount().plain(), "on", on.toString(), "reason", reason.strip()));
    }
}
