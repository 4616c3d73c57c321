package leveltally.server.outside;

import java.time.LocalDate;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.TypedBatches;
import org.jspecify.annotations.Nullable;

/**
 * A typed row as it is understood, or why it is not.
 *
 * @param number in the form it is kept in
 * @param ledgerDate when the ledger takes it
 * @param paid null where there is a problem
 * @param says what else is worth knowing of it, such as numbers it passes over
 */
record OutsideSeen(
        OutsideRow row,
        String number,
        LocalDate ledgerDate,
        @Nullable VendorId vendor,
        String payee,
        @Nullable Money amount,
        TypedBatches.@Nullable Paid paid,
        String says,
        @Nullable Refusal problem) {}
