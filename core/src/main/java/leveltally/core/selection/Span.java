package leveltally.core.selection;

import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * A range with both ends in it; an end that is null does not bound.
 *
 * @param <T> what it ranges over
 */
public record Span<T extends Comparable<? super T>>(
        @Nullable T from, @Nullable T to) {

    public static <T extends Comparable<? super T>> Span<T> all() {
        return new Span<>(null, null);
    }

    /**
     * @param field the input at fault when the ends are the wrong way round
     * @param name what ranges, as the refusal calls it
     */
    public static <T extends Comparable<? super T>> Span<T> of(
            @Nullable T from, @Nullable T to, String field, String name) {
        if (from != null && to != null && from.compareTo(to) > 0) {
            throw Refusal.invalidField(
                    "range-turned",
                    field,
                    "The range of " + name + " ends (" + to + ") before it begins (" + from
                            + "), so nothing lies in it. Exchange the two.");
        }
        return new Span<>(from, to);
    }

    public boolean isAll() {
        return from == null && to == null;
    }

    public boolean contains(T value) {
        return (from == null || value.compareTo(from) >= 0) && (to == null || value.compareTo(to) <= 0);
    }

    /** {@code 3 to 5}, {@code from 3}, {@code up to 5}. */
    @Override
    public String toString() {
        if (from == null) {
            return to == null ? "any" : "up to " + to;
        }
        return to == null ? "from " + from : from + " to " + to;
    }
}
