package leveltally.core.approval;

import java.util.Set;
import leveltally.core.people.PersonId;

/**
 * One step of a route.
 *
 * @param needed how many different people must approve here, at least one
 * @param remindAfterHours who has not answered is asked again after so long; 0 for never
 * @param escalateAfterHours the second line may answer as well after so long; 0 for never
 */
public record Step(
        String name,
        Takers takers,
        int needed,
        int remindAfterHours,
        int escalateAfterHours,
        Set<PersonId> secondLine) {
    public Step {
        secondLine = Set.copyOf(secondLine);
        if (needed < 1) {
            throw new IllegalArgumentException("step " + name + ": at least one person is needed, not " + needed);
        }
    }

    /** A step without reminders. */
    public static Step of(String name, Takers takers, int needed) {
        return new Step(name, takers, needed, 0, 0, Set.of());
    }

    /** @param escalated whether the second line was asked, too */
    public boolean asks(Approver person, boolean escalated) {
        return person.mayApprove() && (takers.include(person) || (escalated && secondLine.contains(person.id())));
    }
}
