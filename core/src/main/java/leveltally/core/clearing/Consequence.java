package leveltally.core.clearing;

import leveltally.core.Dates;
import leveltally.core.money.Money;

/** What an answer does, in words, before it is given. */
public final class Consequence {
    private Consequence() {}

    public static String of(Answer answer, Movement movement, Clearing.Stands stands) {
        Money moved = size(movement.amount());
        Presented check = stands.check();
        String name = check == null ? "The check" : check.name();
        Money due = check == null || check.check() == null
                ? Money.zero(moved.currency())
                : check.check().amount();
        return switch (answer) {
            case BANKS_ERROR ->
                stands.kind() == ExceptionKind.AMOUNT_DIFFERS
                        ? name + " clears at " + due + "; " + owed(moved.minus(due))
                        : capital(owed(movement.amount().isPositive() ? moved.negated() : moved))
                                + " Nothing else changes.";
            case OURS ->
                name + " clears at " + due + ", and the difference of " + size(moved.minus(due))
                        + " is entered on the account you choose.";
            case RETURN ->
                "The bank is told to return it; " + owed(moved)
                        + (stands.kind() == ExceptionKind.AMOUNT_DIFFERS
                                        || stands.kind() == ExceptionKind.STALE
                                        || stands.kind() == ExceptionKind.EARLY
                                ? " " + name + " stays outstanding."
                                : "");
            case PAY ->
                name + " clears"
                        + (check != null
                                        && check.check() != null
                                        && movement.day().isBefore(check.check().posted())
                                ? " on " + Dates.inWords(check.check().posted())
                                        + ", the day from which the ledger has it."
                                : " on " + Dates.inWords(movement.day()) + ".");
            case ANOTHER_CHECK ->
                "It clears the check you name, if number and amount agree; otherwise it waits for what that check is.";
            case ENTER ->
                "The ledger's cash " + (movement.amount().isPositive() ? "rises" : "falls") + " by " + moved
                        + " against the account you choose.";
            case MATCH -> "What you choose stands for it. It has to come to " + moved + ".";
            case TAKE_BACK ->
                name + " is outstanding again from " + Dates.inWords(movement.day())
                        + " on; what the bank paid and what it took back stand for each other.";
        };
    }

    private static String owed(Money amount) {
        return amount.isNegative()
                ? "we owe the bank " + amount.negated() + " until it takes it."
                : "the bank owes " + amount + " until it gives it back.";
    }

    private static String capital(String sentence) {
        return Character.toUpperCase(sentence.charAt(0)) + sentence.substring(1);
    }

    private static Money size(Money amount) {
        return amount.isNegative() ? amount.negated() : amount;
    }
}
