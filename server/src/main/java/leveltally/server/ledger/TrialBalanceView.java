package leveltally.server.ledger;

import java.util.List;

/** The balances of a month as they are shown. */
public record TrialBalanceView(String month, boolean locked, List<BalanceLine> lines, List<LedgerLineView> totals) {
    /** A debit balance, or a credit one. */
    record BalanceView(String text, boolean credit) {}

    record BalanceLine(
            String account, BalanceView opening, String debit, String credit, BalanceView closing, String currency) {}
}
