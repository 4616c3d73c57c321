package leveltally.core.posting;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Debit;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;

/**
 * The entry a payment writes: debit what its lines say (payables with gross settled less credits used, the accounts of a
 * direct payment), credit cash, credit discounts taken.
 */
public final class PaymentEntry {
    private PaymentEntry() {}

    /**
     * The accounts a bank account's payments touch, besides each invoice's own payables account.
     *
     * @param discountsTaken empty where the company has said of none yet that it takes discounts
     */
    public record Accounts(AccountId cash, Optional<AccountId> discountsTaken) {
        private AccountId mustTakeDiscounts() {
            return discountsTaken.orElseThrow(() -> Refusal.conflict(
                    "no-account-for",
                    "A discount is taken, and the ledger has no account for it yet. A controller or an administrator says"
                            + " which one it is, on the ledger's page of accounts; then post again."));
        }
    }

    /** @param payables the payables account of every invoice and credit among the lines */
    public static JournalEntry of(
            LocalDate ledgerDate,
            String text,
            List<ClaimLine> lines,
            Map<InvoiceId, AccountId> payables,
            Accounts accounts) {
        Map<Long, Money> debits = new TreeMap<>();
        Money cash = Money.zero(lines.get(0).cash().currency());
        Money discount = cash;
        for (ClaimLine line : lines) {
            for (Debit debit : line.debits()) {
                debits.merge(account(debit, payables).value(), debit.amount(), Money::plus);
            }
            cash = cash.plus(line.cash());
            discount = discount.plus(line.discount());
        }
        List<JournalLine> entry = new ArrayList<>();
        debits.forEach((account, amount) -> {
            if (amount.isPositive()) {
                entry.add(JournalLine.debit(new AccountId(account), amount));
            } else if (amount.isNegative()) {
                entry.add(JournalLine.credit(new AccountId(account), amount.negated()));
            }
        });
        entry.add(JournalLine.credit(accounts.cash(), cash));
        if (discount.isPositive()) {
            entry.add(JournalLine.credit(accounts.mustTakeDiscounts(), discount));
        }
        return new JournalEntry(ledgerDate, text, entry);
    }

    private static AccountId account(Debit debit, Map<InvoiceId, AccountId> payables) {
        if (debit instanceof Debit.Account named) {
            return named.account();
        }
        InvoiceId item = ((Debit.Payables) debit).item();
        AccountId account = payables.get(item);
        if (account == null) {
            throw new IllegalArgumentException("entry " + item.value() + " has no payables account");
        }
        return account;
    }
}
