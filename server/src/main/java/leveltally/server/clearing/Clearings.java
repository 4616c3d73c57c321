package leveltally.server.clearing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.clearing.Clearing;
import leveltally.core.clearing.Presented;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.server.company.Companies;
import leveltally.server.payments.Payments;
import org.springframework.stereotype.Component;

/**
 * Clears what agrees with the checks as they stand. The account's row is locked by who calls, so that no two read one list at
 * once; payments are locked in the order of their ids, so that none is voided meanwhile.
 */
@Component
class Clearings {
    /** A list of a thousand values and more would be made a table by the database, and all of an account read for it. */
    private static final int AT_ONCE = 500;

    private final MovementRows rows;
    private final Payments payments;
    private final Companies companies;

    Clearings(MovementRows rows, Payments payments, Companies companies) {
        this.rows = rows;
        this.payments = payments;
        this.companies = companies;
    }

    /** How many cleared a check, how many said again what was told before, how many stay. */
    record Outcome(int cleared, int again, int stay) {
        Outcome with(Outcome other) {
            return new Outcome(cleared + other.cleared, again + other.again, stay + other.stay);
        }
    }

    /** Clears those of them that agree with a check. */
    Outcome clear(Actor by, BankAccountId account, List<MovementRows.Told> movements) {
        int staleDays = companies.staleDays();
        Outcome all = new Outcome(0, 0, 0);
        for (int from = 0; from < movements.size(); from += AT_ONCE) {
            all = all.with(
                    some(by, account, movements.subList(from, Math.min(movements.size(), from + AT_ONCE)), staleDays));
        }
        return all;
    }

    private Outcome some(Actor by, BankAccountId account, List<MovementRows.Told> movements, int staleDays) {
        Set<Long> numbers = numbers(movements);
        if (numbers.isEmpty()) {
            return new Outcome(0, 0, movements.size());
        }
        rows.lockPayments(account, numbers);
        Map<Long, List<Presented>> found = rows.presented(account, numbers);
        ToldBefore before = new ToldBefore(rows.toldBefore(account, numbers, reportOf(movements)));
        Set<PaymentId> now = new HashSet<>();
        List<MovementRows.Match> matches = new ArrayList<>();
        List<Payments.Cleared> cleared = new ArrayList<>();
        int again = 0;
        for (MovementRows.Told one : movements) {
            if (!one.isWhole()) {
                continue;
            }
            MovementRows.Match told = before.sameAs(one);
            if (told != null) {
                matches.add(told);
                again++;
                continue;
            }
            Clearing decided = Clearing.of(one.says(), presented(one, found), staleDays);
            if (decided instanceof Clearing.Clears clears
                    && clears.check().check() != null
                    && now.add(clears.check().check().payment())) {
                Presented.Carried check = clears.check().check();
                LocalDate on = one.from(check.stateDate());
                cleared.add(new Payments.Cleared(check.payment(), clears.check().name(), on));
                matches.add(new MovementRows.Match(
                        one.id(),
                        MatchKind.PAYMENT,
                        check.payment().value(),
                        one.says().amount(),
                        on,
                        null,
                        "",
                        null));
            }
        }
        if (!cleared.isEmpty()) {
            payments.clear(by, cleared);
        }
        rows.match(by, account, matches);
        return new Outcome(cleared.size(), again, movements.size() - matches.size());
    }

    /** What each of them seems to be about. */
    Map<Long, Clearing> look(BankAccountId account, List<MovementRows.Told> movements) {
        int staleDays = companies.staleDays();
        Map<Long, Clearing> looked = new HashMap<>();
        for (int from = 0; from < movements.size(); from += AT_ONCE) {
            List<MovementRows.Told> some = movements.subList(from, Math.min(movements.size(), from + AT_ONCE));
            Map<Long, List<Presented>> found = rows.presented(account, numbers(some));
            some.forEach(one -> looked.put(one.id(), Clearing.of(one.says(), presented(one, found), staleDays)));
        }
        return looked;
    }

    /** The one report all of them come from; 0 where they come from several. */
    private static long reportOf(List<MovementRows.Told> movements) {
        long first = movements.get(0).report();
        // a file that tells one check twice has paid it twice
        return movements.stream().allMatch(one -> one.report() == first) ? first : 0;
    }

    static Set<Long> numbers(Collection<MovementRows.Told> movements) {
        Set<Long> numbers = new HashSet<>();
        movements.forEach(one -> one.says().digits().ifPresent(numbers::add));
        return numbers;
    }

    private static List<Presented> presented(MovementRows.Told one, Map<Long, List<Presented>> found) {
        return one.says().digits().isPresent()
                ? found.getOrDefault(one.says().digits().getAsLong(), List.of())
                : List.of();
    }

    /** What other kinds of reports told of the same checks. */
    private static final class ToldBefore {
        private final List<MovementRows.Same> told;
        private final Map<Long, List<MovementRows.Same>> byNumber = new HashMap<>();

        ToldBefore(List<MovementRows.Same> told) {
            this.told = told;
            this.told.forEach(one -> byNumber.computeIfAbsent(one.number(), none -> new ArrayList<>())
                    .add(one));
        }

        MovementRows.@org.jspecify.annotations.Nullable Match sameAs(MovementRows.Told one) {
            if (one.says().digits().isEmpty()) {
                return null;
            }
            for (MovementRows.Same before :
                    byNumber.getOrDefault(one.says().digits().getAsLong(), List.of())) {
                if (before.movement() != one.id()
                        && before.by() != one.by()
                        && before.amount().equals(one.says().amount())
                        && before.toldBy().add(one.by())) {
                    return new MovementRows.Match(
                            one.id(),
                            MatchKind.TOLD,
                            before.movement(),
                            one.says().amount(),
                            one.from(),
                            null,
                            "",
                            one.by());
                }
            }
            return null;
        }
    }
}
