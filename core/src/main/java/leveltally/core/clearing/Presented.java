package leveltally.core.clearing;

import java.time.LocalDate;
import leveltally.core.checks.NumberState;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;

/**
 * A check number of the account that bears the digits the bank told.
 *
 * @param prefix the letters its series puts before it
 * @param check what it carries; null where it carries nothing
 */
public record Presented(
        String prefix,
        long number,
        NumberState paper,
        @Nullable Carried check) {
    /**
     * The payment a number carries.
     *
     * @param posted the day on which the ledger has it
     * @param stateDate the day of its last step
     */
    public record Carried(
            PaymentId payment,
            String payee,
            Money amount,
            LocalDate checkDate,
            LocalDate posted,
            PaymentState state,
            LocalDate stateDate) {}

    /** As it is printed. */
    public String name() {
        return "Check " + prefix + number;
    }
}
