package leveltally.server.outside;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How typed rows are understood.
 *
 * @param total what the rows come to that are right; empty for none
 * @param problems how many are not
 */
record OutsideLooked(List<LookedRow> rows, String total, int problems) {
    /**
     * @param paidOn the day it was paid; {@code ledgerDate} when the ledger takes it
     * @param vendor null where nobody is called so
     * @param amount as it is understood; empty where it cannot be read
     * @param settles what it settles or debits
     * @param says what else is worth knowing
     * @param problem why it cannot be recorded so, by the field at fault; null where it can
     */
    record LookedRow(
            String number,
            LocalDate paidOn,
            LocalDate ledgerDate,
            @Nullable Long vendor,
            String payee,
            String amount,
            List<Settles> settles,
            String says,
            @Nullable String problem,
            Map<String, String> fields) {}

    /** @param leaves what it leaves open; empty for nothing, or for an account */
    record Settles(String what, String amount, String discount) {}
}
