package leveltally.core.proof;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The tallies of one batch and the vials between them: five, and a sixth once its bank paid anything. Level when every vial
 * whose sides are both reached is; what the bank has not paid yet puts nothing off.
 */
public record LevelStrip(List<Tally> tallies, List<Vial> vials) {

    /** What a tally counts, each from its own rows. */
    public enum Step {
        LINES("Lines, net"),
        PAYMENTS("Payments"),
        ON_PAPER("On paper"),
        IN_FILE("In file"),
        ORDERED("Ordered"),
        LEDGER("Ledger"),
        TOLD_THE_BANK("Told the bank"),
        PAID_BY_THE_BANK("Paid by the bank");

        private final String words;

        Step(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** @param amount null when the batch has not reached this step: empty, not zero */
    public record Tally(Step step, int count, @Nullable Money amount) {}

    /**
     * What stands between two neighbours; {@code UNEVEN} when their sums agree and single payments do not, {@code WAITING}
     * while the bank has not paid all.
     */
    public enum Bubble {
        EMPTY,
        LEVEL,
        WAITING,
        UNEVEN,
        SHORT,
        OVER
    }

    /**
     * @param difference how far the right tally is from the left one; null while one of them is empty
     * @param payments on how many payments the two differ
     */
    public record Vial(Bubble bubble, @Nullable Money difference, int payments) {}

    public LevelStrip {
        tallies = List.copyOf(tallies);
        vials = List.copyOf(vials);
    }

    /** @param differing for each two neighbours, on how many payments they differ */
    public static LevelStrip of(List<Tally> tallies, List<Integer> differing) {
        List<Vial> vials = new ArrayList<>();
        for (int i = 1; i < tallies.size(); i++) {
            Vial vial = between(tallies.get(i - 1).amount(), tallies.get(i).amount(), differing.get(i - 1));
            boolean waits = tallies.get(i).step() == Step.PAID_BY_THE_BANK && vial.bubble() == Bubble.SHORT;
            vials.add(waits ? new Vial(Bubble.WAITING, vial.difference(), vial.payments()) : vial);
        }
        return new LevelStrip(tallies, vials);
    }

    private static Vial between(@Nullable Money left, @Nullable Money right, int differing) {
        if (left == null || right == null) {
            return new Vial(Bubble.EMPTY, null, 0);
        }
        Money difference = right.minus(left);
        if (difference.isZero()) {
            return new Vial(differing == 0 ? Bubble.LEVEL : Bubble.UNEVEN, difference, differing);
        }
        return new Vial(difference.isNegative() ? Bubble.SHORT : Bubble.OVER, difference, differing);
    }

    public boolean isLevel() {
        return vials.stream()
                .allMatch(vial -> vial.bubble() == Bubble.EMPTY
                        || vial.bubble() == Bubble.LEVEL
                        || vial.bubble() == Bubble.WAITING);
    }
}
