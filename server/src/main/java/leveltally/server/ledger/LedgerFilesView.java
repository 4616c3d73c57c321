package leveltally.server.ledger;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * What was handed to the general ledger, the newest first, and what waits.
 *
 * @param waiting how many entries no file holds
 * @param from ledger date of the first of them, {@code to} of the last; null where none waits
 * @param debits what they debit, in each currency
 */
record LedgerFilesView(
        int waiting,
        @Nullable LocalDate from,
        @Nullable LocalDate to,
        List<MoneyView> debits,
        List<LedgerFileView> files) {
    /**
     * @param upTo the last ledger date it takes
     * @param why it was taken back; empty for all others
     */
    record LedgerFileView(
            long id,
            LocalDate upTo,
            String state,
            String stateWords,
            int entries,
            List<MoneyView> debits,
            String madeBy,
            Instant madeAt,
            @Nullable String answeredBy,
            @Nullable Instant answeredAt,
            String why) {}
}
