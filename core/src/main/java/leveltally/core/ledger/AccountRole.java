package leveltally.core.ledger;

import java.util.EnumSet;
import java.util.Set;

/** What an account of the ledger is for where payments are written; each role is played by one account. */
public enum AccountRole {
    /** What is owed to vendors; one for each currency that is paid. */
    PAYABLES("Payables", true, AccountKind.PAYABLES),
    DISCOUNTS_TAKEN("Discounts taken", false, AccountKind.INCOME, AccountKind.EXPENSE),
    PREPAYMENTS("Prepayments to vendors", false, AccountKind.ASSET),
    /** Takes what comes back when a payment of an earlier year is undone and its invoice cancelled. */
    RECOVERED_PAYMENTS("Recovered payments", false, AccountKind.INCOME);

    private final String words;
    private final boolean perCurrency;
    private final Set<AccountKind> kinds;

    AccountRole(String words, boolean perCurrency, AccountKind first, AccountKind... rest) {
        this.words = words;
        this.perCurrency = perCurrency;
        this.kinds = EnumSet.of(first, rest);
    }

    public String words() {
        return words;
    }

    /** Whether each currency has an account of its own for it. */
    public boolean isPerCurrency() {
        return perCurrency;
    }

    /** Whether an account of this kind can play the role. */
    public boolean takes(AccountKind kind) {
        return kinds.contains(kind);
    }

    /** The kinds that can play it, in words. */
    public String kindsInWords() {
        return kinds.stream()
                .map(AccountKind::words)
                .reduce((a, b) -> a + " or " + b)
                .orElseThrow();
    }
}
