package leveltally.server.direct;

import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.TypedBatches;
import org.jspecify.annotations.Nullable;

/**
 * A typed row as it is understood, or why it is not.
 *
 * @param paid null where there is a problem
 * @param says what else is worth knowing of it
 */
record DirectSeen(
        DirectRow row,
        @Nullable VendorId vendor,
        String payee,
        @Nullable Money amount,
        TypedBatches.@Nullable Paid paid,
        String says,
        @Nullable Refusal problem) {}
