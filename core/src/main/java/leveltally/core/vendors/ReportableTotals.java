package leveltally.core.vendors;

import java.util.Comparator;
import java.util.List;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What a vendor was paid in cash, by the year of the check dates. What is undone within its year counts nothing; undone in
 * a later one it stays as it was reported, and the year is marked.
 */
public record ReportableTotals(List<Year> years) {
    /**
     * Payments of one year and currency with the same outcome.
     *
     * @param undoneIn the year in which they were undone; null when they stand
     */
    public record Paid(int year, @Nullable Integer undoneIn, int count, Money cash) {}

    /** @param changedLater how many of them were undone in a later year */
    public record Year(int year, int count, Money cash, int changedLater) {
        private Year plus(Paid paid) {
            return new Year(
                    year,
                    count + paid.count(),
                    cash.plus(paid.cash()),
                    changedLater + (stands(paid) ? 0 : paid.count()));
        }
    }

    /** The latest year first, its currencies by code. */
    public static ReportableTotals of(List<Paid> payments) {
        var years = new java.util.TreeMap<Key, Year>();
        for (Paid paid : payments) {
            if (stands(paid) || paid.undoneIn() > paid.year()) {
                Key key = new Key(paid.year(), paid.cash().currency().getCurrencyCode());
                Year none = new Year(paid.year(), 0, Money.zero(paid.cash().currency()), 0);
                years.put(key, years.getOrDefault(key, none).plus(paid));
            }
        }
        return new ReportableTotals(List.copyOf(years.values()));
    }

    private static boolean stands(Paid paid) {
        return paid.undoneIn() == null;
    }

    private record Key(int year, String currency) implements Comparable<Key> {
        @Override
        public int compareTo(Key other) {
            return Comparator.comparingInt(Key::year)
                    .reversed()
                    .thenComparing(Key::currency)
                    .compare(this, other);
        }
    }
}
