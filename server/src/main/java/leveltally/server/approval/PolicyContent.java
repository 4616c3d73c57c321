package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.approval.Policy;
import leveltally.core.approval.Route;
import leveltally.core.approval.Step;
import leveltally.core.approval.Takers;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.jspecify.annotations.Nullable;

/** The routes as they are typed, sent and kept: from the lightest to the strictest. */
public record PolicyContent(@NotNull @Size(max = 20) List<@Valid @NotNull RouteContent> routes) {

    /** A limit in one currency, such as {@code 10000.00}. */
    public record LimitContent(
            @NotNull @Size(max = 3) String currency,
            @NotNull @Size(max = 20) String amount) {}

    /** What asks for a route, and its steps in their order. */
    public record RouteContent(
            @NotNull @Size(max = 60) String name,
            @NotNull @Size(max = 50) List<@NotNull Long> accounts,
            @NotNull @Size(max = 20) List<@Valid @NotNull LimitContent> totalOver,
            @NotNull @Size(max = 20) List<@Valid @NotNull LimitContent> paymentOver,
            @NotNull @Size(max = 20) List<@NotNull MarkKind> marks,
            @NotNull @Size(max = 9) List<@Valid @NotNull StepContent> steps) {}

    /** {@code role} or {@code people}, and how many of them; 0 hours are never. */
    public record StepContent(
            @NotNull @Size(max = 60) String name,
            @Nullable Role role,
            @NotNull @Size(max = 50) List<@NotNull Long> people,
            int needed,
            int remindAfterHours,
            int escalateAfterHours,
            @NotNull @Size(max = 50) List<@NotNull Long> secondLine) {}

    /** @throws Refusal naming the route and what is wrong with it */
    Policy policy() {
        return new Policy(routes.stream().map(PolicyContent::route).toList()).checked();
    }

    private static Route route(RouteContent content) {
        if (content.steps().isEmpty()) {
            throw refused("Route “" + content.name() + "” has no step. Give it one, or take the route out.");
        }
        return new Route(
                content.name().strip(),
                content.accounts().stream().map(BankAccountId::new).collect(Collectors.toSet()),
                limits(content.totalOver()),
                limits(content.paymentOver()),
                new HashSet<>(content.marks()),
                content.steps().stream().map(step -> step(content.name(), step)).toList());
    }

    private static List<Money> limits(List<LimitContent> limits) {
        return limits.stream()
                .map(limit -> Money.typed(limit.amount(), currency(limit.currency()), "routes"))
                .toList();
    }

    private static Currency currency(String code) {
        try {
            return Currency.getInstance(code);
        } catch (IllegalArgumentException unknown) {
            throw refused("“" + code + "” is no currency. Choose one of those your bank accounts have.");
        }
    }

    private static Step step(String route, StepContent content) {
        if ((content.role() == null) == content.people().isEmpty()) {
            throw refused("Step “" + content.name() + "” of route “" + route
                    + "” names either a role or people, one of the two.");
        }
        if (content.needed() < 1) {
            throw refused("Step “" + content.name() + "” of route “" + route + "” needs at least one person.");
        }
        return new Step(
                content.name().strip(),
                new Takers(content.role(), ids(content.people())),
                content.needed(),
                content.remindAfterHours(),
                content.escalateAfterHours(),
                ids(content.secondLine()));
    }

    private static Set<PersonId> ids(List<Long> ids) {
        return ids.stream().map(PersonId::new).collect(Collectors.toSet());
    }

    /** The same with every amount as screens write it. */
    PolicyContent tidied() {
        return new PolicyContent(routes.stream()
                .map(route -> new RouteContent(
                        route.name().strip(),
                        route.accounts(),
                        tidied(route.totalOver()),
                        tidied(route.paymentOver()),
                        route.marks(),
                        route.steps()))
                .toList());
    }

    private static List<LimitContent> tidied(List<LimitContent> limits) {
        return limits(limits).stream()
                .map(limit -> new LimitContent(limit.currency().getCurrencyCode(), limit.toString()))
                .toList();
    }

    /** Everybody it names. */
    Set<Long> named() {
        return routes.stream()
                .flatMap(route -> route.steps().stream())
                .flatMap(step -> java.util.stream.Stream.concat(step.people().stream(), step.secondLine().stream()))
                .collect(Collectors.toSet());
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("routes", "routes", sentence);
    }
}
