package leveltally.core.printing;

import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberState;
import org.jspecify.annotations.Nullable;

/**
 * A sheet of stock that waits for an answer, or has one.
 *
 * @param number the check number on it
 * @param answer what was said of it; null while nothing was
 * @param reprint whether its series lets a damaged sheet print again on its own number
 * @param posted true once the ledger has its payment
 */
public record Sheet(
        long number,
        boolean handedOver,
        boolean reprint,
        @Nullable Answer answer,
        boolean posted) {
    /**
     * An answer that may be given.
     *
     * @param becomes what the number is from now on; empty where it stays as it is
     */
    public record Given(Answer answer, String why, Optional<NumberState> becomes) {}

    /**
     * An answer may be corrected to spoiled, from good or from printing again, until the payment is posted; the same answer again changes nothing.
     *
     * @return empty when it is the answer the sheet has
     * @throws Refusal when it cannot be given
     */
    public Optional<Given> answered(Answer said, String why) {
        if (answer == said) {
            return Optional.empty();
        }
        if (!handedOver) {
            throw Refusal.conflict("not-printed", "These sheets were not handed to the printer yet. Print them first.");
        }
        boolean correction = (answer == Answer.GOOD || answer == Answer.AGAIN) && said == Answer.SPOILED;
        if (answer != null && !correction) {
            throw Refusal.conflict(
                    "answered-already",
                    "Sheet " + number + " was answered already: " + answer.words() + ". Look at it again.");
        }
        if (posted) {
            throw Refusal.conflict(
                    "posted-already", "Check " + number + " is posted. Void it instead of calling it spoiled.");
        }
        if (said == Answer.AGAIN && !reprint) {
            throw Refusal.conflict(
                    "no-reprint",
                    "The series of check " + number
                            + " prints no number a second time. Call the sheet spoiled; its payment"
                            + " gets the next number.");
        }
        if (said != Answer.GOOD && said != Answer.BLANK && why.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say what happened to sheet " + number + ", such as “smeared”.");
        }
        Optional<NumberState> becomes = switch (said) {
            case GOOD -> Optional.of(NumberState.PRINTED);
            case SPOILED -> Optional.of(NumberState.SPOILED);
            case BLANK, AGAIN -> Optional.empty();
        };
        return Optional.of(new Given(said, why.strip(), becomes));
    }
}
