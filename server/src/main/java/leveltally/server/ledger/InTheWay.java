package leveltally.server.ledger;

import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * What keeps a month from being locked.
 *
 * @param count of them all; {@code first} names some
 */
record InTheWay(long count, List<PaymentInTheWay> first) {
    static final int MOST = 20;

    /** A payment that is numbered or filed and not posted. */
    record PaymentInTheWay(
            long batch, String batchName, @Nullable String number, String payee, MoneyView amount) {}
}
