package leveltally.core.clearing;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.checks.NumberState;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;

/** What becomes of a movement: number and amount clear a check; the rest stays until somebody answers. */
public sealed interface Clearing {
    /** The check is paid, on the bank's day. */
    record Clears(Presented check) implements Clearing {}

    /**
     * It stays.
     *
     * @param check the one it seems to be about; null where none is found
     * @param sentence why, in words
     */
    record Stands(ExceptionKind kind, @Nullable Presented check, String sentence) implements Clearing {}

    /**
     * @param found the numbers of the account with the digits the bank told
     * @param staleDays after which a check is stale
     */
    static Clearing of(Movement movement, List<Presented> found, int staleDays) {
        if (!movement.isCheck()) {
            return new Stands(ExceptionKind.NO_CHECK, null, "No check: enter it, or match what the ledger has.");
        }
        Optional<Presented> meant = meant(movement, found);
        if (meant.isEmpty()) {
            return new Stands(
                    ExceptionKind.NUMBER_UNKNOWN,
                    null,
                    "No check of this account has the number " + movement.number() + ".");
        }
        return of(movement, meant.get(), staleDays);
    }

    /** Of two series that use one number, the one with these letters, else the one with this amount. */
    private static Optional<Presented> meant(Movement movement, List<Presented> found) {
        Comparator<Presented> better = Comparator.comparing(
                        (Presented one) -> one.prefix().equalsIgnoreCase(movement.prefix()))
                .thenComparing(
                        one -> one.check() != null && one.check().amount().equals(size(movement)))
                .thenComparing(one -> one.check() != null);
        return found.stream()
                // letters that no series has are a reason to ask
                .filter(one -> movement.prefix().isEmpty() || one.prefix().equalsIgnoreCase(movement.prefix()))
                .max(better);
    }

    private static leveltally.core.money.Money size(Movement movement) {
        return movement.amount().isNegative() ? movement.amount().negated() : movement.amount();
    }

    private static Clearing of(Movement movement, Presented presented, int staleDays) {
        String name = presented.name();
        Presented.Carried check = presented.check();
        if (movement.amount().isPositive()) {
            boolean paid = check != null && check.state() == PaymentState.CLEARED;
            return new Stands(
                    paid ? ExceptionKind.REVERSED : ExceptionKind.GIVEN_BACK,
                    presented,
                    paid
                            ? "The bank took back what it paid for " + name + "."
                            : "The bank gave money back for " + name + ": match it with what it owes.");
        }
        if (presented.paper() == NumberState.SPOILED) {
            return stands(ExceptionKind.SPOILED, presented, name + " was spoiled: its paper should not exist.");
        }
        if (check == null || check.state() == PaymentState.TAKEN_OUT || presented.paper() == NumberState.TAKEN) {
            return stands(
                    ExceptionKind.NOT_ISSUED,
                    presented,
                    "No check went out under " + presented.prefix() + presented.number() + ": the number is "
                            + presented.paper().words() + ".");
        }
        return switch (check.state()) {
            case PREPARED ->
                stands(ExceptionKind.NOT_POSTED, presented, name + " is printed, not posted. Post it, and it clears.");
            case VOIDED, REVERSED ->
                stands(
                        ExceptionKind.VOIDED,
                        presented,
                        name + " was voided on " + Dates.inWords(check.stateDate()) + ".");
            case CLEARED, RETURNED ->
                stands(
                        ExceptionKind.PAID_TWICE,
                        presented,
                        name + " was paid already on " + Dates.inWords(check.stateDate()) + ".");
            case STOPPED ->
                stands(
                        ExceptionKind.STOPPED,
                        presented,
                        name + " was stopped on " + Dates.inWords(check.stateDate()) + ".");
            case TAKEN_OUT -> throw new IllegalArgumentException("a payment taken out carries no check");
            case OUTSTANDING -> ofOutstanding(movement, presented, check, staleDays);
        };
    }

    private static Clearing ofOutstanding(
            Movement movement, Presented presented, Presented.Carried check, int staleDays) {
        if (!movement.paid().equals(check.amount())) {
            return stands(
                    ExceptionKind.AMOUNT_DIFFERS,
                    presented,
                    presented.name() + " is for " + check.amount() + ", the bank paid " + movement.paid() + ".");
        }
        if (movement.day().isBefore(check.posted())) {
            return stands(
                    ExceptionKind.EARLY,
                    presented,
                    presented.name() + " is in the ledger from " + Dates.inWords(check.posted())
                            + " on, the bank paid it on " + Dates.inWords(movement.day()) + ".");
        }
        LocalDate staleAfter = check.checkDate().plusDays(staleDays);
        if (movement.day().isAfter(staleAfter)) {
            return stands(
                    ExceptionKind.STALE,
                    presented,
                    presented.name() + " of " + Dates.inWords(check.checkDate()) + " is stale since "
                            + Dates.inWords(staleAfter) + ".");
        }
        return new Clears(presented);
    }

    private static Stands stands(ExceptionKind kind, Presented check, String sentence) {
        return new Stands(kind, check, sentence);
    }
}
