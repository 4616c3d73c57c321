package leveltally.server.checks;

import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.server.payments.Payment;

/** A check number with the payment it was taken for, as other capabilities see it. */
public record Check(CheckNumberId id, long number, NumberState state, Payment payment) {
    /** What people call it. */
    public String name() {
        return "Check " + number;
    }
}
