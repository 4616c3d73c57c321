package leveltally.core.selection;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Which claims to pay with a limited amount so that the most discount is saved; among equals more cash is used, then
 * earlier claims come first. A 0–1 knapsack.
 *
 * <p>Where few partial choices compete, all are searched, and ties of any make-up follow the order. Otherwise the search goes outwards from the claim where the best discount per cash
 * runs out (the expanding core of Pisinger's MINKNAP, 1997), each partial choice bounded by the fractional relaxation.
 * It ends with a proof, or at its budget with the largest discount it may have missed; among claims of equal cash and
 * discount the earlier ones are paid.
 *
 * @param taken for each claim, whether it is paid
 * @param error the largest discount, in minor units, that another choice could save beyond this one; 0 = exact
 */
record BestChoice(boolean[] taken, long error) {
    /** At most this many partial choices are kept beside each other, and made in all: well under a second. */
    private static final int MOST_KEPT = 20_000;

    private static final long MOST_MADE = 3_000_000;
    private static final int MOST_COMPLETE = 400;

    /** @param cash above zero, {@code discount} at or above zero, {@code limit} at or above zero, all in minor units */
    static BestChoice of(long[] cash, long[] discount, long limit) {
        BestChoice all = everything(cash, limit);
        if (all != null) {
            return all;
        }
        BestChoice complete = cash.length <= MOST_COMPLETE ? complete(cash, discount, limit) : null;
        return complete != null ? complete : earlierOfEquals(cash, discount, new Core(cash, discount, limit).search());
    }

    /** Among claims of the same cash and discount as many as before are paid, the first ones. */
    private static BestChoice earlierOfEquals(long[] cash, long[] discount, BestChoice found) {
        record Alike(long cash, long discount) {}
        Map<Alike, Integer> paid = new HashMap<>();
        for (int i = 0; i < cash.length; i++) {
            paid.merge(new Alike(cash[i], discount[i]), found.taken()[i] ? 1 : 0, Integer::sum);
        }
        boolean[] taken = new boolean[cash.length];
        for (int i = 0; i < cash.length; i++) {
            taken[i] = paid.merge(new Alike(cash[i], discount[i]), -1, Integer::sum) >= 0;
        }
        return new BestChoice(taken, found.error());
    }

    private static BestChoice everything(long[] cash, long limit) {
        long left = limit;
        for (long one : cash) {
            left -= one;
            if (left < 0) {
                return null;
            }
        }
        boolean[] taken = new boolean[cash.length];
        Arrays.fill(taken, true);
        return new BestChoice(taken, 0);
    }

    /** One partial choice of the complete search; {@code set} has the first claim in its highest bit. */
    private record Partial(long cash, long discount, BigInteger set) {}

    /** Claim by claim in order, dropping what cannot win; null when too many remain. */
    private static BestChoice complete(long[] cash, long[] discount, long limit) {
        List<Partial> kept = List.of(new Partial(0, 0, BigInteger.ZERO));
        long made = 0;
        Comparator<Partial> order = Comparator.comparingLong(Partial::cash)
                .thenComparing(Partial::discount, Comparator.reverseOrder())
                .thenComparing(Partial::set, Comparator.reverseOrder());
        for (int i = 0; i < cash.length; i++) {
            List<Partial> both = new ArrayList<>(kept);
            for (Partial one : kept) {
                if (one.cash() + cash[i] <= limit) {
                    both.add(new Partial(
                            one.cash() + cash[i],
                            one.discount() + discount[i],
                            one.set().setBit(cash.length - i)));
                }
            }
            both.sort(order);
            kept = withoutBeaten(both);
            made += kept.size();
            if (kept.size() > MOST_KEPT || made > MOST_MADE) {
                return null;
            }
        }
        Partial best = kept.get(kept.size() - 1);
        for (Partial one : kept) {
            if (one.discount() > best.discount() || one.discount() == best.discount() && one.cash() > best.cash()) {
                best = one;
            }
        }
        boolean[] taken = new boolean[cash.length];
        for (int i = 0; i < taken.length; i++) {
            taken[i] = best.set().testBit(cash.length - i);
        }
        return new BestChoice(taken, 0);
    }

    /** Beaten is what saves less with at least as much cash, or the same as one before it in the order. */
    private static List<Partial> withoutBeaten(List<Partial> sorted) {
        List<Partial> kept = new ArrayList<>();
        long most = -1;
        for (Partial one : sorted) {
            Partial last = kept.isEmpty() ? null : kept.get(kept.size() - 1);
            boolean same = last != null && last.cash() == one.cash() && last.discount() == one.discount();
            if (one.discount() >= most && !same) {
                kept.add(one);
                most = one.discount();
            }
        }
        return kept;
    }

    /** The search outwards from where the best discount per cash runs out. */
    private static final class Core {
        /** One partial choice: what it spends and saves when all undecided claims stay as the greedy choice has them. */
        private record State(long cash, long discount, int flipped, State before) {}

        private final long[] cash;
        private final long[] discount;
        private final long limit;
        private final int[] byReturn;
        private final int start;
        private State best;
        private long dropped = Long.MIN_VALUE;

        Core(long[] cash, long[] discount, long limit) {
            this.cash = cash;
            this.discount = discount;
            this.limit = limit;
            this.byReturn = orderByReturn(cash, discount);
            long used = 0;
            int at = 0;
            while (used + cash[byReturn[at]] <= limit) {
                used += cash[byReturn[at++]];
            }
            this.start = at;
        }

        private static int[] orderByReturn(long[] cash, long[] discount) {
            Integer[] order = new Integer[cash.length];
            Arrays.setAll(order, i -> i);
            Arrays.sort(order, (a, b) -> compareProducts(discount[b], cash[a], discount[a], cash[b]));
            return Arrays.stream(order).mapToInt(Integer::intValue).toArray();
        }

        BestChoice search() {
            long spent = 0;
            long saved = 0;
            for (int i = 0; i < start; i++) {
                spent += cash[byReturn[i]];
                saved += discount[byReturn[i]];
            }
            State root = new State(spent, saved, -1, null);
            best = root;
            long ceiling = bound(root, start - 1, start);
            List<State> kept = List.of(root);
            int left = start - 1;
            int right = start;
            long made = 0;
            boolean proven = false;
            while (!proven && made < MOST_MADE && (left >= 0 || right < byReturn.length)) {
                if (right < byReturn.length) {
                    kept = expand(kept, byReturn[right], true);
                    right++;
                }
                if (left >= 0) {
                    kept = expand(kept, byReturn[left], false);
                    left--;
                }
                made += kept.size();
                kept = prune(kept, left, right);
                proven = kept.isEmpty() || best.discount() == ceiling && best.cash() == limit;
            }
            long possible = dropped;
            if (!proven && (left >= 0 || right < byReturn.length)) {
                for (State one : kept) {
                    possible = Math.max(possible, bound(one, left, right));
                }
            }
            // what was dropped may have had no hope at all, so the larger comes first
            long most = Math.max(best.discount(), Math.min(possible, ceiling));
            return new BestChoice(taken(), most - best.discount());
        }

        private boolean[] taken() {
            boolean[] taken = new boolean[cash.length];
            for (int i = 0; i < start; i++) {
                taken[byReturn[i]] = true;
            }
            for (State one = best; one.before() != null; one = one.before()) {
                taken[one.flipped()] = !taken[one.flipped()];
            }
            return taken;
        }

        /** Both lists are sorted by cash; so is the merged one, without what is beaten. */
        private List<State> expand(List<State> kept, int claim, boolean add) {
            int sign = add ? 1 : -1;
            List<State> flipped = new ArrayList<>(kept.size());
            for (State one : kept) {
                State next =
                        new State(one.cash() + sign * cash[claim], one.discount() + sign * discount[claim], claim, one);
                flipped.add(next);
                if (next.cash() <= limit && better(next, best)) {
                    best = next;
                }
            }
            List<State> merged = new ArrayList<>(kept.size() * 2);
            int a = 0;
            int b = 0;
            while (a < kept.size() || b < flipped.size()) {
                boolean first = b == flipped.size() || a < kept.size() && !before(flipped.get(b), kept.get(a));
                State next = first ? kept.get(a++) : flipped.get(b++);
                State last = merged.isEmpty() ? null : merged.get(merged.size() - 1);
                boolean beaten = last != null
                        && (next.discount() < last.discount()
                                || next.discount() == last.discount() && next.cash() == last.cash());
                if (!beaten) {
                    merged.add(next);
                }
            }
            return merged;
        }

        private static boolean before(State a, State b) {
            return a.cash() < b.cash() || a.cash() == b.cash() && a.discount() > b.discount();
        }

        private static boolean better(State a, State b) {
            return a.discount() > b.discount() || a.discount() == b.discount() && a.cash() > b.cash();
        }

        private List<State> prune(List<State> kept, int left, int right) {
            List<State> hopeful = new ArrayList<>(kept.size());
            for (State one : kept) {
                long possible = bound(one, left, right);
                if (possible > best.discount() || possible == best.discount() && best.cash() < limit) {
                    hopeful.add(one);
                }
            }
            if (hopeful.size() <= MOST_KEPT) {
                return hopeful;
            }
            hopeful.sort(Comparator.<State>comparingLong(one -> -bound(one, left, right))
                    .thenComparingLong(one -> Math.abs(limit - one.cash())));
            for (State one : hopeful.subList(MOST_KEPT, hopeful.size())) {
                dropped = Math.max(dropped, bound(one, left, right));
            }
            List<State> narrowed = new ArrayList<>(hopeful.subList(0, MOST_KEPT));
            narrowed.sort((a, b) -> before(a, b) ? -1 : before(b, a) ? 1 : 0);
            return narrowed;
        }

        /** The most any completion can save: the room left filled with the next best return, or won back from the last. */
        private long bound(State one, int left, int right) {
            long room = limit - one.cash();
            if (room >= 0) {
                return right == byReturn.length ? one.discount() : one.discount() + share(room, byReturn[right]);
            }
            return left < 0 ? Long.MIN_VALUE : one.discount() + share(room, byReturn[left]);
        }

        /** room × discount ÷ cash of a claim, rounded down. */
        private long share(long room, int claim) {
            long product = room * discount[claim];
            if (Math.multiplyHigh(room, discount[claim]) == product >> 63) {
                return Math.floorDiv(product, cash[claim]);
            }
            BigInteger[] parts = BigInteger.valueOf(room)
                    .multiply(BigInteger.valueOf(discount[claim]))
                    .divideAndRemainder(BigInteger.valueOf(cash[claim]));
            return parts[0].longValueExact() - (parts[1].signum() < 0 ? 1 : 0);
        }

        /** a × b compared with c × d. */
        private static int compareProducts(long a, long b, long c, long d) {
            int high = Long.compare(Math.multiplyHigh(a, b), Math.multiplyHigh(c, d));
            return high != 0 ? high : Long.compareUnsigned(a * b, c * d);
        }
    }
}
