package leveltally.server.batches;

import java.time.LocalDate;
import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;

/**
 * A batch to be made of what the criteria take.
 *
 * @param expectedCount how many invoices the clerk saw taken; the batch is refused when it would take another number
 * @param criteria the kept criteria it was asked by; null for none
 */
public record NewBatch(
        String name,
        String note,
        LocalDate ledgerDate,
        int expectedCount,
        DueQuestion question,
        @Nullable Long criteria) {}
