package leveltally.server.ledger;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;

/** The balances of a month as they are shown. */
@Schema(requiredProperties = {"month", "locked", "lines", "totals"})
public record TrialBalanceView(String month, boolean locked, List<BalanceLine> lines, List<LedgerLineView> totals) {
    /** A debit balance, or a credit one. */
    @Schema(requiredProperties = {"text", "credit"})
    record BalanceView(String text, boolean credit) {}

    @Schema(requiredProperties = {"account", "opening", "debit", "credit", "closing", "currency"})
    record BalanceLine(
            String account, BalanceView opening, String debit, String credit, BalanceView closing, String currency) {}
}
