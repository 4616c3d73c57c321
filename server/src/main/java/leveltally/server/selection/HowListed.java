package leveltally.server.selection;

import java.time.LocalDate;
import leveltally.core.selection.RelativeDay;
import leveltally.core.selection.Span;
import org.jspecify.annotations.Nullable;

/**
 * How a screen wants its list.
 *
 * @param listedBy null: by due day
 * @param showing null: all of it
 * @param sortedBy null: the rows of a group stand as the selection has them
 * @param days those picked on the horizon, {@code 2026-11-20~2026-11-24}; all when none are
 */
public record HowListed(
        Listing.@Nullable By listedBy,
        Listing.@Nullable Showing showing,
        @Nullable String days,
        RowOrder.@Nullable By sortedBy,
        @Nullable Boolean descending) {
    DueLists.Shape shape() {
        return new DueLists.Shape(
                listedBy == null ? Listing.By.DAY : listedBy,
                showing == null ? Listing.Showing.ALL : showing,
                span(days),
                new RowOrder(sortedBy, Boolean.TRUE.equals(descending)));
    }

    private static Span<LocalDate> span(@Nullable String text) {
        if (text == null || text.isBlank()) {
            return Span.all();
        }
        String[] ends = text.split("~");
        LocalDate from = RelativeDay.read(ends[0], LocalDate.EPOCH);
        return Span.of(from, ends.length == 1 ? from : RelativeDay.read(ends[1], LocalDate.EPOCH), "days", "days");
    }
}
