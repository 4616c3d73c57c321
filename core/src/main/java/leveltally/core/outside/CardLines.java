package leveltally.core.outside;

import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;

/**
 * The lines of a card issuer's statement against the payments made by that card: a line names its payment by the number, or by an
 * amount that only one of them has.
 */
public final class CardLines {
    private CardLines() {}

    /** A payment by card that could stand on the statement. */
    public record Payment(PaymentId id, String number, Money amount) {}

    /**
     * What came of the lines.
     *
     * @param matched those whose line was found
     * @param others what is to be looked at by somebody
     */
    public record Read(Set<PaymentId> matched, List<Other> others) {}

    /** @param why in words, why no payment was found for the line */
    public record Other(String line, String why) {}

    /**
     * @param text line by line, as it was copied from the statement; the last amount of a line is what it bills
     * @param payments in the order in which they were made
     */
    public static Read read(String text, Currency currency, List<Payment> payments) {
        Set<PaymentId> matched = new LinkedHashSet<>();
        List<Other> others = new ArrayList<>();
        // what is named by its number is nobody else's
        for (boolean named : new boolean[] {true, false}) {
            text.lines().map(String::strip).filter(line -> !line.isEmpty()).forEach(line -> {
                List<Payment> free = payments.stream()
                        .filter(one -> !matched.contains(one.id()))
                        .toList();
                boolean names = payments.stream().anyMatch(one -> names(line, one));
                if (names != named) {
                    return;
                }
                Optional<Money> billed = amount(line, currency);
                String why = billed.isEmpty()
                        ? "no amount was found in it"
                        : named ? byNumber(line, billed.get(), free, matched) : byAmount(billed.get(), free, matched);
                if (!why.isEmpty()) {
                    others.add(new Other(line, why));
                }
            });
        }
        return new Read(matched, others);
    }

    private static String byNumber(String line, Money billed, List<Payment> free, Set<PaymentId> matched) {
        List<Payment> named = free.stream().filter(one -> names(line, one)).toList();
        if (named.isEmpty()) {
            return "its payment stands in a line above already";
        }
        Payment one = named.get(0);
        if (!one.amount().equals(billed)) {
            return one.number() + " is " + one.amount() + " here, and " + billed + " there";
        }
        matched.add(one.id());
        return "";
    }

    private static String byAmount(Money billed, List<Payment> free, Set<PaymentId> matched) {
        List<Payment> alike =
                free.stream().filter(one -> one.amount().equals(billed)).toList();
        if (alike.size() == 1) {
            matched.add(alike.get(0).id());
            return "";
        }
        return alike.isEmpty()
                ? "no payment of " + billed + " was recorded, or it stands on a statement already"
                : "it fits " + alike.stream().map(Payment::number).limit(4).collect(Collectors.joining(" and "));
    }

    private static boolean names(String line, Payment one) {
        return (" " + line.replaceAll("[\\s;,\\t]+", " ") + " ").contains(" " + one.number() + " ");
    }

    /** The last word of a line that is an amount of this currency with its minor units. */
    private static Optional<Money> amount(String line, Currency currency) {
        int decimals = currency.getDefaultFractionDigits();
        String pattern = "-?\\d[\\d,]*" + (decimals == 0 ? "" : "\\.\\d{" + decimals + "}");
        return Stream.of(line.split("[\\s;\\t]+"))
                .filter(word -> word.matches(pattern))
                .reduce((before, last) -> last)
                .flatMap(word -> {
                    try {
                        return Optional.of(Money.parse(word, currency));
                    } catch (IllegalArgumentException none) {
                        return Optional.empty();
                    }
                });
    }
}
