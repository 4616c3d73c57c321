package leveltally.core.voiding;

import java.util.List;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;

/** What becomes of an invoice when the payment that settled it is undone. */
public sealed interface Outcome {
    /** It is open again. */
    record BringBack() implements Outcome {}

    /** It is open again and held, so that nobody pays it before somebody looked. */
    record BringBackHeld(String reason) implements Outcome {
        public BringBackHeld {
            if (reason.isBlank()) {
                throw new IllegalArgumentException("a hold says why");
            }
        }
    }

    /**
     * What is brought back is cancelled at once against accounts, so that nothing of it is owed any more.
     *
     * @param payables the account on which it is owed
     * @param against its own account lines, which share it in their proportion, or one account that takes all of it
     */
    record Cancel(AccountId payables, List<Line> against) implements Outcome {
        public Cancel {
            against = List.copyOf(against);
            if (against.isEmpty()) {
                throw new IllegalArgumentException("a cancellation needs an account");
            }
        }
    }

    /** @param weight below zero for an allowance on the invoice */
    record Line(AccountId account, Money weight) {}
}
