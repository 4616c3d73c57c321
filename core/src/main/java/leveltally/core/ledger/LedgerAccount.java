package leveltally.core.ledger;

import java.time.LocalDate;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * An account of the ledger.
 *
 * @param closedFrom nothing dated so or later is written to it; null while it is open
 */
public record LedgerAccount(
        AccountId id, AccountFacts facts, @Nullable LocalDate closedFrom) {
    /** {@code 5200 Chandlery}. */
    public String inWords() {
        return facts.code() + " " + facts.name();
    }

    /** Whether something of that day can be written to it. */
    public boolean isOpenOn(LocalDate ledgerDate) {
        return closedFrom == null || ledgerDate.isBefore(closedFrom);
    }

    /** @throws Refusal when it is closed on that day */
    public void mustTake(LocalDate ledgerDate) {
        if (!isOpenOn(ledgerDate)) {
            throw Refusal.conflict(
                    "account-closed",
                    "Account " + inWords() + " is closed from " + Dates.inWords(closedFrom)
                            + " on, so nothing dated " + Dates.inWords(ledgerDate)
                            + " goes to it. Choose another account, or have the controller open it again.");
        }
    }
}
