package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.Currency;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.PlannedRuns;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * A bank account as other capabilities see it; the account number is unsealed and never leaves the server whole.
 *
 * @param floor the cash the company keeps on it
 * @param thisRun the check date of the batches made last; {@code nextRun} the one planned after it
 */
public record BankAccount(
        BankAccountId id,
        String name,
        String bankName,
        Currency currency,
        PaymentMethod method,
        String stock,
        String routingNumber,
        String accountNumber,
        String micrPattern,
        String currencyWord,
        String validity,
        AccountId cash,
        AccountId discountsTaken,
        long firstNumber,
        long nextNumber,
        boolean positivePay,
        @Nullable Long layout,
        Money floor,
        @Nullable LocalDate thisRun,
        @Nullable LocalDate nextRun) {

    /** The runs planned for it. */
    public PlannedRuns runs() {
        return new PlannedRuns(thisRun, nextRun);
    }
}
