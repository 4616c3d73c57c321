package leveltally.server.frame;

import java.util.Currency;
import leveltally.core.money.Money;

/** An amount as a screen shows it: {@code 1,225.00} and its currency. */
public record MoneyView(String text, String currency) {
    public static MoneyView of(Money money) {
        return new MoneyView(money.toString(), money.currency().getCurrencyCode());
    }

    public static MoneyView of(long minor, String currency) {
        return of(Money.ofMinor(minor, Currency.getInstance(currency)));
    }
}
