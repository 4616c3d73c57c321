package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A page of the entries of a month; {@code next} is where the following page starts; absent on the last one. */
public record EntriesView(
        List<EntryView> entries, long total, @Nullable String next) {
    record EntryView(long id, LocalDate date, String text, String kind, String by, List<LedgerLineView> lines) {}
}
