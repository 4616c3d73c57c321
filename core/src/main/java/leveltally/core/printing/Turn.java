package leveltally.core.printing;

import java.time.Duration;
import java.time.Instant;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.people.PersonId;

/**
 * One person's exclusive, expiring use of an account's numbers for printing.
 *
 * @param serial every deed carries it; one of an older turn is refused
 */
public record Turn(long serial, BatchId batch, PersonId person, Instant startedAt, Instant lastDeedAt) {
    /** After this long without a deed or a renewal any clerk may take it over. */
    public static final Duration IDLE = Duration.ofMinutes(15);

    /** True when any clerk may take it over. */
    public boolean isIdle(Instant now) {
        return Duration.between(lastDeedAt, now).compareTo(IDLE) >= 0;
    }

    /**
     * @param holder the name of whoever has it, {@code account} that of the account
     * @param reason why it is taken over, needed from anybody else
     * @throws Refusal when it is somebody else's and not idle, or no reason is given
     */
    public void mustYield(PersonId to, String holder, String account, String reason, Instant now) {
        if (person.equals(to)) {
            return;
        }
        if (!isIdle(now)) {
            throw Refusal.conflict(
                    "turn-taken",
                    holder + " has the turn to print from " + account
                            + ". Wait until the numbers are recorded, or take the turn over once it has been idle for "
                            + IDLE.toMinutes() + " minutes.");
        }
        if (reason.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "reason", holder + " left the turn idle. Say why you take it over.");
        }
    }
}
