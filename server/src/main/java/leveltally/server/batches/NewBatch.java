package leveltally.server.batches;

import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;

/**
 * A batch to be made of what the criteria take.
 *
 * @param expectedCount how many invoices the clerk saw taken; the batch is refused when it would take another number
 * @param expectedToPay the sum they saw, as it was written there; another sum is refused, too
 * @param criteria the kept criteria it was asked by; null for none
 */
public record NewBatch(
        String name,
        String note,
        int expectedCount,
        String expectedToPay,
        DueQuestion question,
        @Nullable Long criteria) {}
