package leveltally.core.electronic;

/**
 * What the entries of a batch, or of a file, add up to.
 *
 * @param count entries and addenda
 * @param hash the sum of the first eight digits of their banks' routing numbers; records have room for its last ten digits
 * @param debit in cents, as {@code credit}
 */
public record AchTotals(long count, long hash, long debit, long credit) {
    static final AchTotals NONE = new AchTotals(0, 0, 0, 0);
    private static final long TEN_DIGITS = 10_000_000_000L;

    AchTotals with(AchTotals other) {
        return new AchTotals(
                count + other.count,
                Math.addExact(hash, other.hash),
                Math.addExact(debit, other.debit),
                Math.addExact(credit, other.credit));
    }

    long hashWritten() {
        return hash % TEN_DIGITS;
    }
}
