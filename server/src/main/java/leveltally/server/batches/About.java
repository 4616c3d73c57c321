package leveltally.server.batches;

import java.time.LocalDate;

/** What may change about a batch as a whole. */
public record About(String name, String note, LocalDate ledgerDate, LocalDate checkDate) {}
