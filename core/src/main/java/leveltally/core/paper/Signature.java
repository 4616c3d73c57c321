package leveltally.core.paper;

import leveltally.core.money.Money;

/**
 * A signature that is printed. It goes to the printer only, never on what is looked at.
 *
 * @param upTo the largest amount it signs; above it somebody signs by hand
 */
public record Signature(Picture picture, Money upTo) {
    public boolean signs(Money amount) {
        return amount.compareTo(upTo) <= 0;
    }
}
