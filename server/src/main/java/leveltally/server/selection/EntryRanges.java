package leveltally.server.selection;

import java.util.HashSet;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import org.jspecify.annotations.Nullable;

/** Entry numbers as an address carries them: {@code 7001-7090.7731}. */
public final class EntryRanges {
    private static final int MOST = 100_000;

    private EntryRanges() {}

    public static Set<InvoiceId> read(@Nullable String text) {
        Set<InvoiceId> entries = new HashSet<>();
        if (text == null || text.isBlank()) {
            return entries;
        }
        if (!text.matches("\\d{1,15}(-\\d{1,15})?(\\.\\d{1,15}(-\\d{1,15})?)*")) {
            throw Refusal.invalid(
                    "marks-unreadable", "What was marked by hand could not be read. Load the page again without it.");
        }
        for (String range : text.split("\\.")) {
            String[] ends = range.split("-");
            long from = Long.parseLong(ends[0]);
            long to = ends.length == 1 ? from : Long.parseLong(ends[1]);
            if (to - from >= MOST || entries.size() + to - from >= MOST) {
                throw Refusal.invalid(
                        "too-many-by-hand",
                        "At most 100,000 invoices can be marked by hand. Narrow the sentence instead.");
            }
            for (long entry = from; entry <= to; entry++) {
                entries.add(new InvoiceId(entry));
            }
        }
        return entries;
    }
}
