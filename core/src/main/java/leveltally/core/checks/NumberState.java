package leveltally.core.checks;

import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;

/**
 * The life of a check number on paper; {@link #to} is the only gate between its states. What becomes of the payment that a
 * printed number carries is the payment's own life. No number is ever deleted.
 */
public enum NumberState {
    TAKEN("taken"),
    PRINTED("printed"),
    /** On a check that somebody wrote by hand; recorded with the posting of its payment. */
    WRITTEN("written by hand"),
    SPOILED("spoiled"),
    UNACCOUNTED("unaccounted");

    private static final Map<NumberState, Set<NumberState>> ALLOWED = Map.of(
            TAKEN, Set.of(PRINTED, SPOILED, UNACCOUNTED),
            PRINTED, Set.of(SPOILED),
            WRITTEN, Set.of(),
            SPOILED, Set.of(),
            UNACCOUNTED, Set.of(TAKEN, WRITTEN));

    private final String words;

    NumberState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The states a number in this one can reach in one step. */
    public Set<NumberState> next() {
        return ALLOWED.getOrDefault(this, Set.of());
    }

    /** True while the number carries its payment; a payment has at most one such number. */
    public boolean isLive() {
        return this == TAKEN || this == PRINTED || this == WRITTEN;
    }

    /** @throws Refusal when a number in this state carries no payment: what is done to the payment is done by another number */
    public void mustCarry(long number) {
        if (!isLive()) {
            throw Refusal.conflict(
                    "carries-nothing",
                    "Number " + number + " is " + words
                            + " and carries no payment. Choose the number that pays it, in the register.");
        }
    }

    /** @throws Refusal when a number in this state cannot become {@code next} */
    public NumberState to(NumberState next, long number) {
        if (!next().contains(next)) {
            throw Refusal.conflict(
                    "wrong-number-state",
                    "Check " + number + " is " + words + ", so it cannot become " + next.words
                            + ". Look at its history in the register.");
        }
        return next;
    }
}
