package leveltally.core.checks;

import leveltally.core.Refusal;

/**
 * The first number in the printer's tray, as the clerk read it, against the next one of the account.
 *
 * @param first the number the run starts with
 * @param skipped how many numbers before it become unaccounted
 */
public record Tray(long first, long skipped) {
    /** More than this at once is a slip of the finger, not a lost stack of paper. */
    static final long MOST_SKIPPED = 500;

    /** @throws Refusal when the number was used, lies too far ahead, or numbers are skipped without a reason */
    public static Tray confirm(long next, long inTray, String reason) {
        if (inTray < next) {
            throw Refusal.invalidField(
                    "number-used",
                    "firstNumber",
                    "Number " + inTray + " was used already; the next free one is " + next
                            + ". Put the paper that starts with " + next + " into the tray.");
        }
        long skipped = inTray - next;
        if (skipped > MOST_SKIPPED) {
            throw Refusal.invalidField(
                    "number-too-far",
                    "firstNumber",
                    "Number " + inTray + " is " + skipped + " ahead of " + next + ", more than the " + MOST_SKIPPED
                            + " that can be skipped at once. Check the number you typed.");
        }
        if (skipped > 0 && reason.isBlank()) {
            throw Refusal.invalidField(
                    "skip-needs-reason",
                    "reason",
                    "Starting with " + inTray + " skips " + (skipped == 1 ? "number " : "numbers ") + next
                            + (skipped == 1 ? "" : " to " + (inTray - 1))
                            + ". Say why, or put the paper that starts with " + next + " into the tray.");
        }
        return new Tray(inTray, skipped);
    }
}
