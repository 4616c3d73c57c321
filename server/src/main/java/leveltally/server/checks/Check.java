package leveltally.server.checks;

import java.time.LocalDate;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.PaymentId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** A check number with the payment behind it, as other capabilities see it. */
public record Check(
        CheckNumberId id,
        long number,
        NumberState state,
        BankAccountId account,
        BatchId batch,
        ClaimId claim,
        PaymentId payment,
        String payee,
        Money amount,
        LocalDate checkDate,
        LocalDate ledgerDate,
        @Nullable EntryId postedEntry) {}
