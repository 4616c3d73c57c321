package leveltally.core.approval;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;

/** Whether a route can be completed at all by different people, once the separations apply. */
public final class Completion {
    private static final int NOBODY = -1;

    private Completion() {}

    /**
     * Matches every place of every step with a person of its own.
     *
     * @param excluded who may not approve: those who prepared the batch, or changed a vendor it pays
     * @return the name of the first step that stays short; empty when all can be filled
     */
    public static String shortOf(List<Step> steps, Collection<Approver> people, Set<PersonId> excluded) {
        List<Approver> free =
                people.stream().filter(one -> !excluded.contains(one.id())).toList();
        int[] placeOf = new int[free.size()];
        Arrays.fill(placeOf, NOBODY);
        List<Step> places = new ArrayList<>();
        for (Step step : steps) {
            for (int i = 0; i < step.needed(); i++) {
                places.add(step);
                if (!fill(places.size() - 1, places, free, placeOf, new boolean[free.size()])) {
                    return step.name();
                }
            }
        }
        return "";
    }

    /** Gives a place to somebody, moving others to other places where that helps (an augmenting path). */
    private static boolean fill(int place, List<Step> places, List<Approver> free, int[] placeOf, boolean[] tried) {
        Step step = places.get(place);
        for (int i = 0; i < free.size(); i++) {
            if (!tried[i] && step.asks(free.get(i), step.escalateAfterHours() > 0)) {
                tried[i] = true;
                if (placeOf[i] == NOBODY || fill(placeOf[i], places, free, placeOf, tried)) {
                    placeOf[i] = place;
                    return true;
                }
            }
        }
        return false;
    }

    /**
     * What to warn of before a policy is kept: routes that nobody could ever complete, or not when a certain clerk prepares
     * the batch.
     *
     * @param people everybody who may sign in
     */
    public static List<String> warnings(Policy policy, Collection<Approver> people) {
        List<String> warnings = new ArrayList<>();
        for (Route route : policy.routes()) {
            String step = shortOf(route.steps(), people, Set.of());
            if (!step.isEmpty()) {
                warnings.add("Route “" + route.name() + "” can never be completed: step “" + step
                        + "” stays short of people, because nobody takes two steps.");
                continue;
            }
            List<String> not = people.stream()
                    .filter(one -> one.roles().contains(Role.CLERK))
                    .filter(clerk ->
                            !shortOf(route.steps(), people, Set.of(clerk.id())).isEmpty())
                    .map(Approver::name)
                    .sorted()
                    .toList();
            if (!not.isEmpty()) {
                warnings.add("Route “" + route.name() + "” cannot be completed for a batch prepared by "
                        + String.join(" or ", not) + ": who prepares does not approve, and nobody else is left.");
            }
        }
        return warnings;
    }
}
