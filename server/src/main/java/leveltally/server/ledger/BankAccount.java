package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.Currency;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * A bank account as other capabilities see it; the account number is unsealed and never leaves the server whole.
 *
 * @param floor the cash the company keeps on it
 * @param nextRun the check date planned for the next batch
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
        @Nullable LocalDate nextRun) {}
