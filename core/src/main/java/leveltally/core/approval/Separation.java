package leveltally.core.approval;

import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.people.PersonId;

/** Law L7: nobody approves what they prepared or changed, nor two steps of one route. */
public final class Separation {
    private Separation() {}

    /**
     * @param hands everyone who prepared or changed the batch
     * @param approvers everyone who already approved a step of its route
     * @throws Refusal when the person may not approve it
     */
    public static void check(PersonId person, Set<PersonId> hands, Set<PersonId> approvers) {
        if (hands.contains(person)) {
            throw Refusal.notAllowed(
                    "own-work", "You prepared or changed this batch, so somebody else must approve it.");
        }
        if (approvers.contains(person)) {
            throw Refusal.notAllowed(
                    "second-step", "You approved an earlier step of this batch, so somebody else must take this one.");
        }
    }
}
