package leveltally.core.ledger;

import leveltally.core.money.Money;

/** One side of an entry on one account; the amount is above zero. */
public record JournalLine(AccountId account, Side side, Money amount) {
    /** Debit or credit. */
    public enum Side {
        DEBIT,
        CREDIT;

        public Side opposite() {
            return this == DEBIT ? CREDIT : DEBIT;
        }
    }

    public JournalLine {
        if (!amount.isPositive()) {
            throw new IllegalArgumentException("journal line: an amount is above zero, not " + amount);
        }
    }

    public static JournalLine debit(AccountId account, Money amount) {
        return new JournalLine(account, Side.DEBIT, amount);
    }

    public static JournalLine credit(AccountId account, Money amount) {
        return new JournalLine(account, Side.CREDIT, amount);
    }

    /** What it debits; below zero for a credit. */
    public Money debited() {
        return side == Side.DEBIT ? amount : amount.negated();
    }
}
