package leveltally.server.marks;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;

/**
 * What stands beside a document while it is typed.
 *
 * @param open what is open of the vendor, {@code count} of documents
 * @param last the documents that came last
 * @param likely those this one may be a second time
 */
record BesideView(List<MoneyView> open, int count, List<BesideRow> last, List<BesideRow> likely) {
    /** @param words what became of it, or how it is like the one that is typed */
    record BesideRow(long entry, String reference, LocalDate date, MoneyView amount, String words) {}
}
