package leveltally.server.checks;

import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.payments.Payment;

/**
 * A check number with the payment it was taken for, as other capabilities see it.
 *
 * @param prefix of its series, as it stands before the number; empty for most
 */
public record Check(CheckNumberId id, String prefix, long number, NumberState state, Payment payment) {
    /** What people call it. */
    public String name() {
        return PaymentMethod.CHECK.called(prefix + number);
    }
}
