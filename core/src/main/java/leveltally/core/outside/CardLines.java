package leveltally.core.outside;

import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;

/**
 * The lines of a card issuer's statement against the payments made by that card: a line names its payment by the number, or by an
 * amount that only one of them has. What a line bills may be followed by a balance, so that its last two amounts are tried.
 */
public final class CardLines {
    private static final int TRIED = 2;

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
     * @param text line by line, as it was copied from the statement
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
                List<Money> amounts = amounts(line, currency);
                String why = amounts.isEmpty()
                        ? "no amount was found in it"
                        : named ? byNumber(line, amounts, free, matched) : byAmount(amounts, free, matched);
                if (!why.isEmpty()) {
                    others.add(new Other(line, why));
                }
            });
        }
        return new Read(matched, others);
    }

    private static String byNumber(String line, List<Money> amounts, List<Payment> free, Set<PaymentId> matched) {
        List<Payment> named = free.stream().filter(one -> names(line, one)).toList();
        if (named.isEmpty()) {
            return "its payment stands in a line above already";
        }
        Payment one = named.get(0);
        if (!amounts.contains(one.amount())) {
            return one.number() + " is " + one.amount() + " here, and " + inWords(amounts) + " there";
        }
        matched.add(one.id());
        return "";
    }

    private static String byAmount(List<Money> amounts, List<Payment> free, Set<PaymentId> matched) {
        List<Payment> alike =
                free.stream().filter(one -> amounts.contains(one.amount())).toList();
        if (alike.size() == 1) {
            matched.add(alike.get(0).id());
            return "";
        }
        return alike.isEmpty()
                ? "no payment of " + inWords(amounts) + " was recorded, or it stands on a statement already"
                : "it fits " + alike.stream().map(Payment::number).limit(4).collect(Collectors.joining(" and "));
    }

    private static String inWords(List<Money> amounts) {
        return amounts.stream().map(Money::toString).collect(Collectors.joining(" or "));
    }

    private static boolean names(String line, Payment one) {
        return (" " + line.replaceAll("[\\s;,\\t]+", " ") + " ").contains(" " + one.number() + " ");
    }

    /** The last words of a line that are amounts of this currency with their minor units. */
    private static List<Money> amounts(String line, Currency currency) {
        int decimals = currency.getDefaultFractionDigits();
        String pattern = "-?\\d[\\d,]*" + (decimals == 0 ? "" : "\\.\\d{" + decimals + "}");
        List<Money> amounts = Stream.of(line.split("[\\s;\\t]+"))
                .filter(word -> word.matches(pattern))
                .flatMap(word -> {
                    try {
                        return Stream.of(Money.parse(word, currency));
                    } catch (IllegalArgumentException none) {
                        return Stream.empty();
                    }
                })
                .toList();
        return amounts.stream()
                .skip(Math.max(0, amounts.size() - TRIED))
                .distinct()
                .toList();
    }
}
