package leveltally.server.selection;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import leveltally.core.money.Money;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import org.jspecify.annotations.Nullable;

/**
 * In which order the rows of a group stand.
 *
 * @param by null: the order of the selection itself
 */
record RowOrder(@Nullable By by, boolean descending) {
    /** What rows can be sorted by; equal ones stand by entry. */
    enum By {
        VENDOR(Comparator.comparing(row -> row.candidate().payee().name(), String.CASE_INSENSITIVE_ORDER)),
        REFERENCE(Comparator.comparing(row -> row.candidate().invoice().reference(), String.CASE_INSENSITIVE_ORDER)),
        DUE(Comparator.comparing(row -> row.candidate().invoice().dueDate())),
        NOTE(Comparator.comparing(
                row -> Listing.Note.of(row, row.candidate().invoice().discount().until())
                        .words())),
        OPEN(Comparator.comparing(row -> row.candidate().invoice().open(), amounts())),
        TO_PAY(Comparator.comparing(
                row -> row.decision() instanceof Decision.Taken taken
                        ? taken.payment().cash()
                        : null,
                Comparator.nullsFirst(amounts())));

        private final Comparator<Selection.Row> ascending;

        By(Comparator<Selection.Row> ascending) {
            this.ascending = ascending;
        }

        /** Amounts of one currency beside each other; nothing is converted. */
        private static Comparator<Money> amounts() {
            return Comparator.<Money, String>comparing(money -> money.currency().getCurrencyCode())
                    .thenComparing(Money::minor);
        }
    }

    List<Selection.Row> of(List<Selection.Row> rows) {
        if (by == null) {
            return rows;
        }
        Comparator<Selection.Row> order = descending ? by.ascending.reversed() : by.ascending;
        Stream<Selection.Row> sorted = rows.stream().sorted(order.thenComparingLong(RowOrder::entry));
        return sorted.toList();
    }

    private static long entry(Selection.Row row) {
        return row.candidate().invoice().id().value();
    }
}
