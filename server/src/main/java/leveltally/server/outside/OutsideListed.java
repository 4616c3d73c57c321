package leveltally.server.outside;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * Payments made elsewhere, the newest first.
 *
 * @param more true where there are more than are listed
 */
record OutsideListed(List<ListedOutside> rows, List<MoneyView> amounts, boolean more) {
    /**
     * @param payment null until it is posted
     * @param check its number's id in the register; null for what is no check
     * @param kind such as wire
     * @param state of the payment, or of its batch until it is posted, in words
     * @param undone true where it was undone
     * @param statement the card issuer's statement it stands on; null for none
     */
    record ListedOutside(
            long claim,
            @Nullable Long payment,
            @Nullable Long check,
            String kind,
            String number,
            String account,
            String payee,
            long vendor,
            LocalDate paidOn,
            @Nullable LocalDate ledgerDate,
            MoneyView amount,
            String state,
            boolean inTheLedger,
            boolean undone,
            long batch,
            String batchName,
            @Nullable Long statement,
            @Nullable String statementReference) {}
}
