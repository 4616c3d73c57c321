package leveltally.server.batches;

import java.time.LocalDate;
import leveltally.server.selection.DueQuestion;

/**
 * A batch to be made of what the criteria take.
 *
 * @param expectedCount how many invoices the clerk saw taken; the batch is refused when it would take another number
 */
public record NewBatch(String name, String note, LocalDate ledgerDate, int expectedCount, DueQuestion question) {}
