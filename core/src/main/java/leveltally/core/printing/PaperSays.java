package leveltally.core.printing;

import java.util.List;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * The rest of a run on numbered stock whose paper has other numbers than were reckoned with.
 *
 * @param reckoned the number the first of its sheets was given
 * @param says the number on its paper
 * @param sheets how many follow each other, the first included
 */
public record PaperSays(long reckoned, long says, int sheets) {
    /** More than this at once is a slip of the finger, not paper that was fed together. */
    static final long MOST_PASSED_OVER = 500;

    /**
     * A sheet as it was reckoned.
     *
     * @param answer what was said of it; null while nothing was
     * @param stands whether its number carries its payment, unposted
     */
    public record Printed(long number, @Nullable Answer answer, boolean stands) {}

    /**
     * @param rest the first sheet with another number and all that follow it in its run
     * @param handedOver whether a printer has it
     * @param next the next free number of its series
     * @throws Refusal when they cannot be renumbered
     */
    public static PaperSays of(List<Printed> rest, boolean handedOver, long next, long says) {
        long reckoned = rest.get(0).number();
        if (!handedOver) {
            throw Refusal.conflict("not-printed", "These sheets were not handed to the printer yet. Print them first.");
        }
        for (Printed sheet : rest) {
            if (sheet.answer() != null || !sheet.stands()) {
                throw Refusal.conflict(
                        "answered-already",
                        "Sheet " + sheet.number()
                                + " of the same run is answered or taken out already, so the rest cannot"
                                + " be renumbered in one go. Call the sheets spoiled that have another number.");
            }
        }
        if (rest.get(rest.size() - 1).number() != next - 1 || next - reckoned != rest.size()) {
            throw Refusal.conflict(
                    "numbers-taken-since",
                    "Numbers after this run were taken since, so its sheets cannot have them. Call the sheets spoiled that"
                            + " have another number.");
        }
        if (says <= reckoned) {
            throw Refusal.invalidField(
                    "paper-says",
                    "says",
                    "The paper has a number above " + reckoned
                            + ", or it was used already. Look at the sheet once more.");
        }
        if (says - reckoned > MOST_PASSED_OVER) {
            throw Refusal.invalidField(
                    "paper-says",
                    "says",
                    "Number " + says + " is " + (says - reckoned) + " ahead, more than " + MOST_PASSED_OVER
                            + " sheets. Check the number you typed.");
        }
        return new PaperSays(reckoned, says, rest.size());
    }

    /** How many numbers are passed over. */
    public long passedOver() {
        return says - reckoned;
    }
}
