package leveltally.core.setup;

import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.ledger.Period;
import leveltally.core.people.Role;

/** What is missing from nothing to the first check. */
public final class Setup {
    private Setup() {}

    /** Somebody who can sign in, by the roles they hold. */
    public record Person(Set<Role> roles) {}

    /**
     * What there is.
     *
     * @param currenciesWithoutPayables those of open bank accounts for which no account takes what is owed
     * @param payablesAnywhere whether any account takes what is owed
     * @param monthsShut of the month of today and that of the first run, those in which nothing can be written
     * @param bankAccounts open ones; {@code payingAccounts} those of them with a way to pay
     * @param rolesWaiting roles that wait for a second person
     * @param vendors with an address in force; {@code vendorsWaiting} those whose address waits for a second person
     */
    public record There(
            boolean company,
            long accounts,
            boolean payablesAnywhere,
            List<String> currenciesWithoutPayables,
            List<YearMonth> monthsShut,
            long bankAccounts,
            long payingAccounts,
            List<Person> people,
            long rolesWaiting,
            boolean routes,
            long vendors,
            long vendorsWaiting,
            long invoices) {}

    /** @param missing what is to be done, as a sentence; empty when the step is done */
    public record Step(SetupStep step, Optional<String> missing) {
        public boolean isDone() {
            return missing.isEmpty();
        }

        /** Whether nothing can be paid before it is done. */
        public boolean holdsUp() {
            return !isDone() && !step.isOptional();
        }
    }

    /** Every step, in order. */
    public static List<Step> of(There there) {
        List<Step> steps = new ArrayList<>();
        for (SetupStep step : SetupStep.values()) {
            steps.add(new Step(step, missing(step, there)));
        }
        return steps;
    }

    private static Optional<String> missing(SetupStep step, There there) {
        return switch (step) {
            case COMPANY -> when(!there.company(), "Give its name and its address.");
            case ACCOUNTS -> accounts(there);
            case MONTH -> months(there.monthsShut());
            case BANK_ACCOUNT -> bankAccount(there);
            case PEOPLE -> people(there);
            case ROUTES -> when(!there.routes(), "No set of routes is in force.");
            case VENDORS -> vendors(there);
            case INVOICES -> when(there.invoices() == 0, "Enter one, or bring in a file.");
        };
    }

    private static Optional<String> accounts(There there) {
        if (there.accounts() == 0) {
            return Optional.of("There is none. Add them one by one, or bring in a list.");
        }
        if (!there.payablesAnywhere()) {
            return Optional.of("Say which account takes what is owed to vendors.");
        }
        return there.currenciesWithoutPayables().isEmpty()
                ? Optional.empty()
                : Optional.of("Say which account takes what is owed to vendors in "
                        + String.join(" and ", there.currenciesWithoutPayables()) + ".");
    }

    private static Optional<String> months(List<YearMonth> shut) {
        String names =
                shut.stream().map(month -> new Period(month, false).inWords()).collect(Collectors.joining(" and "));
        return when(
                !shut.isEmpty(),
                shut.size() == 1
                        ? names + " is not open. Open it, or unlock it."
                        : names + " are not open. Open them, or unlock them.");
    }

    private static Optional<String> bankAccount(There there) {
        if (there.bankAccounts() == 0) {
            return Optional.of("There is none. Open one.");
        }
        return when(there.payingAccounts() == 0, "It has no way to pay yet. Add its checks with their first number.");
    }

    /** Somebody prepares, somebody else approves, and a controller confirms what a clerk proposes. */
    private static Optional<String> people(There there) {
        String missing = List.of(Role.CLERK, Role.APPROVER, Role.CONTROLLER).stream()
                .filter(role -> there.people().stream()
                        .noneMatch(person -> person.roles().contains(role)))
                .map(role -> role.name().toLowerCase(Locale.ROOT))
                .collect(Collectors.joining(" or "));
        if (!missing.isEmpty()) {
            return Optional.of("Nobody is " + missing + "." + waiting(there.rolesWaiting()));
        }
        boolean two = there.people().stream()
                .anyMatch(clerk -> clerk.roles().contains(Role.CLERK)
                        && there.people().stream()
                                .anyMatch(
                                        other -> other != clerk && other.roles().contains(Role.APPROVER)));
        return when(!two, "One person is the only clerk and the only approver. Whoever prepares never approves.");
    }

    /** Approvers and controllers get their role from two, so a lone administrator needs another one first. */
    private static String waiting(long roles) {
        return roles == 0
                ? ""
                : " Such a role waits for a second administrator or a controller to agree; add another administrator"
                        + " where there is only one.";
    }

    private static Optional<String> vendors(There there) {
        if (there.vendors() > 0) {
            return Optional.empty();
        }
        return Optional.of(
                there.vendorsWaiting() == 0
                        ? "There is none. Enter one, or bring in a file."
                        : "The address of " + there.vendorsWaiting()
                                + (there.vendorsWaiting() == 1 ? " vendor waits" : " vendors waits")
                                + " for a second person, a controller.");
    }

    private static Optional<String> when(boolean missing, String sentence) {
        return missing ? Optional.of(sentence) : Optional.empty();
    }
}
