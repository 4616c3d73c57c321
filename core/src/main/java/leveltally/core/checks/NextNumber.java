package leveltally.core.checks;

import leveltally.core.Refusal;

/**
 * A correction of the next number of a series: those passed over become unaccounted with its reason.
 *
 * @param from the next number as it stands
 * @param to the next number as it should be
 */
public record NextNumber(long from, long to, String reason) {
    /** A slip of the finger passes over no more than this. */
    private static final long MOST_SKIPPED = 10_000;

    private static final int MOST_REASON = 300;

    /** @throws Refusal naming the field that cannot be so */
    public NextNumber {
        reason = reason.strip();
        if (to <= from) {
            throw Refusal.invalidField(
                    "number-behind",
                    "next",
                    to == from
                            ? from + " is the next number already."
                            : "The numbers before " + from + " are used or accounted for, so the next cannot be " + to
                                    + ". A number that was called unaccounted is found again in the register.");
        }
        if (to - from > MOST_SKIPPED || to > NumberRange.MOST) {
            throw Refusal.invalidField(
                    "number-far",
                    "next",
                    "That would pass over " + (to - from) + " numbers. At most " + MOST_SKIPPED
                            + " are passed over at once; for other paper add a series.");
        }
        if (reason.isEmpty() || reason.length() > MOST_REASON) {
            throw Refusal.invalidField(
                    "reason-missing", "reason", "Say why " + passedOver(from, to) + " never be used.");
        }
    }

    /** {@code 41250 to 41299 will}. */
    private static String passedOver(long from, long to) {
        return to - from == 1 ? from + " will" : from + " to " + (to - 1) + " will";
    }

    /** How many numbers it passes over. */
    public long skipped() {
        return to - from;
    }
}
