package leveltally.server.approval;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import leveltally.core.approval.Route;
import leveltally.core.approval.Step;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.jspecify.annotations.Nullable;

/** A route in one line, for the trail. */
final class RouteWords {
    private RouteWords() {}

    static String of(Route route) {
        List<String> asked = new ArrayList<>();
        route.totalOver().forEach(limit -> asked.add("total over " + limit + " " + limit.currency()));
        route.paymentOver().forEach(limit -> asked.add("payment over " + limit + " " + limit.currency()));
        route.marks().stream().sorted().map(MarkKind::words).forEach(asked::add);
        String accounts = route.accounts().isEmpty()
                ? ""
                : ", bank accounts "
                        + route.accounts().stream().map(a -> a.value()).sorted().toList();
        return route.name() + accounts + (asked.isEmpty() ? "" : " (" + String.join(", ", asked) + ")") + ": "
                + String.join(
                        ", then ", route.steps().stream().map(RouteWords::of).toList());
    }

    private static String of(Step step) {
        Role role = step.takers().role();
        return step.name() + " by " + step.needed() + " of "
                + (role == null
                        ? "people "
                                + step.takers().people().stream()
                                        .map(PersonId::value)
                                        .sorted()
                                        .toList()
                        : role(role));
    }

    static String role(@Nullable Role role) {
        return role == null ? "" : role.name().toLowerCase(Locale.ROOT);
    }
}
