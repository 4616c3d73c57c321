package leveltally.core.approval;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.Claim;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Role;
import leveltally.core.vendors.VendorId;

/**
 * The routes of a company, from the lightest to the strictest. A batch takes the strictest that anything about it asks
 * for, so that no property of a batch can make its route lighter.
 */
public record Policy(List<Route> routes) {
    private static final Set<Role> ROLES = Set.of(Role.APPROVER, Role.CONTROLLER);

    public Policy {
        routes = List.copyOf(routes);
    }

    /**
     * What a route is chosen by.
     *
     * @param largest the largest sum to one vendor, however it is split into payments
     */
    public record Asking(BankAccountId account, Money total, Money largest, Set<MarkKind> marks) {
        public static Asking of(
                BankAccountId account, Currency currency, Collection<Claim> claims, Set<MarkKind> marks) {
            Money none = Money.zero(currency);
            Map<VendorId, Money> byVendor = new HashMap<>();
            claims.forEach(claim -> byVendor.merge(claim.vendor(), claim.amount(), Money::plus));
            return new Asking(
                    account,
                    Money.sum(byVendor.values(), currency),
                    byVendor.values().stream().max(Money::compareTo).orElse(none),
                    marks);
        }
    }

    /** One route that was considered: whether it was asked for, and by what, or why not. */
    public record Considered(String route, boolean asked, String why) {}

    /** The route taken, the reasons in words, and all that were considered in their order. */
    public record Choice(Route route, String why, List<Considered> considered) {}

    /** @throws Refusal naming the route and what it lacks */
    public Policy checked() {
        if (routes.isEmpty()
                || !routes.get(0).isForAll()
                || !routes.get(0).accounts().isEmpty()) {
            throw refused("The first route is taken by every batch that asks for no other, so it has no conditions and "
                    + "is for all accounts.");
        }
        Set<String> names = new HashSet<>();
        for (Route route : routes) {
            if (route.name().isBlank() || !names.add(route.name().strip().toLowerCase(java.util.Locale.ROOT))) {
                throw refused("Every route has a name of its own; “" + route.name() + "” stands twice or is empty.");
            }
            limits(route, route.totalOver(), "total");
            limits(route, route.paymentOver(), "payment");
            route.steps().forEach(step -> check(route, step));
        }
        return this;
    }

    private static void limits(Route route, List<Money> limits, String what) {
        Set<Currency> seen = new HashSet<>();
        for (Money limit : limits) {
            if (!seen.add(limit.currency()) || limit.minor() < 0) {
                throw refused("Route “" + route.name() + "” has two limits of a " + what + " in " + limit.currency()
                        + ", or one below zero. Keep one for each currency.");
            }
        }
    }

    private static void check(Route route, Step step) {
        String where = "Step “" + step.name() + "” of route “" + route.name() + "” ";
        Role role = step.takers().role();
        if (step.name().isBlank()) {
            throw refused("A step of route “" + route.name() + "” has no name.");
        }
        if (role != null && !ROLES.contains(role)) {
            throw refused(where + "asks for the role " + role.name().toLowerCase(java.util.Locale.ROOT)
                    + ", which may not approve. Choose approver or controller.");
        }
        if (role == null && step.needed() > step.takers().people().size()) {
            throw refused(where + "needs " + step.needed() + " of "
                    + step.takers().people().size() + " people. Name more people, or need fewer.");
        }
        if (step.needed() > 9 || step.remindAfterHours() < 0 || step.escalateAfterHours() < 0) {
            throw refused(where + "needs 1 to 9 people, and hours that are not negative.");
        }
        if (step.escalateAfterHours() > 0 && step.secondLine().isEmpty()) {
            throw refused(where + "has a time for its second line but nobody in it. Name somebody, or set no time.");
        }
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("routes", "routes", sentence);
    }

    /** The strictest route that the batch asks for; the first where it asks for none. */
    public Choice choose(Asking asking) {
        List<Considered> considered = new ArrayList<>();
        List<Route> open =
                routes.stream().filter(route -> route.isFor(asking.account())).toList();
        Route taken = open.get(0);
        String why = "nothing about it asks for another";
        Optional<String> unlimited = unlimited(asking.total().currency());
        for (Route route : routes) {
            if (!open.contains(route)) {
                considered.add(new Considered(route.name(), false, "it is for other bank accounts"));
                continue;
            }
            boolean strictest = route == open.get(open.size() - 1);
            String asked = route.isForAll() && !route.accounts().isEmpty()
                    ? "the bank account asks for it"
                    : reasons(route, asking);
            if (strictest && unlimited.isPresent()) {
                asked = asked.isEmpty() ? unlimited.get() : asked + "; " + unlimited.get();
            }
            boolean first = route == routes.get(0);
            considered.add(new Considered(
                    route.name(),
                    first || !asked.isEmpty(),
                    first ? "every batch may take it" : asked.isEmpty() ? "nothing asks for it" : asked));
            if (!asked.isEmpty()) {
                taken = route;
                why = asked;
            }
        }
        return new Choice(taken, why, considered);
    }

    private static String reasons(Route route, Asking asking) {
        List<String> reasons = new ArrayList<>();
        over(route.totalOver(), asking.total())
                .ifPresent(limit -> reasons.add("the total " + asking.total() + " is over " + limit));
        over(route.paymentOver(), asking.largest())
                .ifPresent(limit -> reasons.add("the largest payment " + asking.largest() + " is over " + limit));
        String marked = route.marks().stream()
                .filter(asking.marks()::contains)
                .sorted()
                .map(MarkKind::words)
                .collect(Collectors.joining(", "));
        if (!marked.isEmpty()) {
            reasons.add("a payment is marked: " + marked);
        }
        return String.join("; ", reasons);
    }

    private static Optional<Money> over(List<Money> limits, Money amount) {
        return limits.stream()
                .filter(limit -> limit.currency().equals(amount.currency()) && amount.compareTo(limit) > 0)
                .findFirst();
    }

    /** A currency without limits takes the strictest route, wherever others have them. */
    private Optional<String> unlimited(Currency currency) {
        boolean missing = isMissing(
                        currency, routes.stream().map(Route::totalOver).toList())
                || isMissing(currency, routes.stream().map(Route::paymentOver).toList());
        return missing
                ? Optional.of("there are no limits in " + currency + ", so the strictest route counts")
                : Optional.empty();
    }

    private static boolean isMissing(Currency currency, List<List<Money>> limits) {
        List<Money> all = limits.stream().flatMap(List::stream).toList();
        return !all.isEmpty()
                && all.stream().noneMatch(limit -> limit.currency().equals(currency));
    }

    /** The limits of a payment in a currency, the lowest first: what amounts just under are marked by. */
    public List<Money> paymentLimits(Currency currency) {
        return routes.stream()
                .flatMap(route -> route.paymentOver().stream())
                .filter(limit -> limit.currency().equals(currency))
                .distinct()
                .sorted(Comparator.naturalOrder())
                .toList();
    }
}
