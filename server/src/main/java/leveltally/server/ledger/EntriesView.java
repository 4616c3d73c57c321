package leveltally.server.ledger;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A page of the entries of a month; {@code next} is where the following page starts; absent on the last one. */
@Schema(requiredProperties = {"entries", "total"})
public record EntriesView(
        List<EntryView> entries, long total, @Nullable String next) {
    @Schema(requiredProperties = {"id", "date", "text", "kind", "by", "lines"})
    record EntryView(long id, LocalDate date, String text, String kind, String by, List<LedgerLineView> lines) {}
}
