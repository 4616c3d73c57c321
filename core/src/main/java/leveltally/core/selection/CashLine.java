package leveltally.core.selection;

import java.util.List;
import leveltally.core.money.Money;

/**
 * Which claims, waiting in their order, a limited amount of cash pays. Claims taken in by hand go first and always.
 *
 * @param taken for each claim, whether it is paid whole
 * @param part the claim that is paid in part with {@code left}; −1 for none
 * @param left what remains of the limit; below zero when claims taken in by hand cost more than the limit
 * @param error the largest discount another choice could save beyond this one; zero = exact
 */
record CashLine(boolean[] taken, int part, Money left, Money error) {

    /**
     * One claim in the queue.
     *
     * @param late something on it is due before the check date
     * @param whole it may not be paid in part
     */
    record Waiting(Money amount, Money discount, boolean late, boolean byHand, boolean whole) {}

    /** @param smallest no part payment below this */
    static CashLine choose(CashWay way, List<Waiting> queue, Money limit, Money smallest) {
        boolean[] taken = new boolean[queue.size()];
        Money left = limit;
        for (int i = 0; i < taken.length; i++) {
            if (queue.get(i).byHand()) {
                taken[i] = true;
                left = left.minus(queue.get(i).amount());
            }
        }
        Money none = Money.zero(limit.currency());
        return switch (way) {
            case STOP_AT_THE_LINE, PART_PAY -> upToTheLine(way, queue, taken, left, smallest);
            case PASS_OVER -> new CashLine(taken, -1, passOver(queue, taken, left, false), none);
            case MOST_DISCOUNT -> mostDiscount(queue, taken, left);
        };
    }

    private static CashLine upToTheLine(
            CashWay way, List<Waiting> queue, boolean[] taken, Money limit, Money smallest) {
        Money none = Money.zero(limit.currency());
        Money left = limit;
        for (int i = 0; i < taken.length; i++) {
            Waiting claim = queue.get(i);
            if (taken[i]) {
                continue;
            }
            if (claim.amount().compareTo(left) <= 0) {
                taken[i] = true;
                left = left.minus(claim.amount());
            } else if (way == CashWay.STOP_AT_THE_LINE) {
                return new CashLine(taken, -1, left, none);
            } else if (!claim.whole() && left.isPositive() && left.compareTo(smallest) >= 0) {
                return new CashLine(taken, i, left, none);
            }
        }
        return new CashLine(taken, -1, left, none);
    }

    private static Money passOver(List<Waiting> queue, boolean[] taken, Money limit, boolean onlyLate) {
        Money left = limit;
        for (int i = 0; i < taken.length; i++) {
            Waiting claim = queue.get(i);
            if (!taken[i] && (claim.late() || !onlyLate) && claim.amount().compareTo(left) <= 0) {
                taken[i] = true;
                left = left.minus(claim.amount());
            }
        }
        return left;
    }

    /** What is late on the check date first, in order; the rest for the most discount. */
    private static CashLine mostDiscount(List<Waiting> queue, boolean[] taken, Money limit) {
        Money left = passOver(queue, taken, limit, true);
        int[] rest = java.util.stream.IntStream.range(0, taken.length)
                .filter(i -> !taken[i] && !queue.get(i).late())
                .toArray();
        long[] cash = new long[rest.length];
        long[] discount = new long[rest.length];
        for (int i = 0; i < rest.length; i++) {
            cash[i] = queue.get(rest[i]).amount().minor();
            discount[i] = queue.get(rest[i]).discount().minor();
        }
        BestChoice best = BestChoice.of(cash, discount, Math.max(0, left.minor()));
        for (int i = 0; i < rest.length; i++) {
            if (best.taken()[i]) {
                taken[rest[i]] = true;
                left = left.minus(queue.get(rest[i]).amount());
            }
        }
        return new CashLine(taken, -1, left, Money.ofMinor(best.error(), limit.currency()));
    }
}
