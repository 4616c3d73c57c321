package leveltally.core.approval;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.people.PersonId;

/**
 * How far a batch has come on its route.
 *
 * @param given the approvals of this round
 */
public record Progress(List<Step> steps, List<Given> given) {
    /**
     * One approval.
     *
     * @param step counted from 1
     * @param of whose approval it is: the person's own, or that of whom a deputy stood in for
     */
    public record Given(int step, PersonId by, PersonId of) {}

    public Progress {
        steps = List.copyOf(steps);
        given = List.copyOf(given);
    }

    /** The first step that still needs somebody, counted from 1; one more than there are when none does. */
    public int current() {
        for (int step = 1; step <= steps.size(); step++) {
            if (missing(step) > 0) {
                return step;
            }
        }
        return steps.size() + 1;
    }

    public boolean isComplete() {
        return current() > steps.size();
    }

    /** How many different people a step still needs. */
    public int missing(int step) {
        long people = given.stream()
                .filter(one -> one.step() == step)
                .map(Given::by)
                .distinct()
                .count();
        return (int) Math.max(0, steps.get(step - 1).needed() - people);
    }

    /** Everybody whose hand is in an approval of this round, for themselves or through a deputy. */
    public Set<PersonId> approvers() {
        Set<PersonId> people = new HashSet<>();
        given.forEach(one -> {
            people.add(one.by());
            people.add(one.of());
        });
        return people;
    }
}
