package leveltally.core.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Collection;
import java.util.Currency;
import java.util.Objects;
import leveltally.core.Refusal;

/**
 * An exact amount in minor units of one currency (cents of USD).
 *
 * <p>Amounts of different currencies are never added; overflow throws {@link ArithmeticException}.
 */
public record Money(long minor, Currency currency) implements Comparable<Money> {
    /** No single amount is larger, so that no sum of those that one company has overflows: 99,999,999,999.99. */
    public static final BigDecimal MOST = new BigDecimal("99999999999.99");

    public Money {
        Objects.requireNonNull(currency, "currency");
        if (currency.getDefaultFractionDigits() < 0) {
            throw new IllegalArgumentException(currency + " has no minor unit, so nothing can be paid in it");
        }
    }

    public static Money ofMinor(long minor, Currency currency) {
        return new Money(minor, currency);
    }

    public static Money ofMinor(long minor, String currency) {
        return new Money(minor, Currency.getInstance(currency));
    }

    public static Money zero(Currency currency) {
        return new Money(0, currency);
    }

    /**
     * Reads a plain decimal such as {@code 1225.00} or {@code 1,225.00}; commas only between groups of three.
     *
     * @throws IllegalArgumentException when it is no amount, has more decimals than the currency, or is over {@link #MOST}
     */
    public static Money parse(String text, Currency currency) {
        return parse(text, currency, DecimalMark.POINT);
    }

    /** As {@link #parse(String, Currency)}, where {@code mark} says what parts the decimals off. */
    public static Money parse(String text, Currency currency, DecimalMark mark) {
        String written = text.strip();
        String shown = "“" + (written.length() > 40 ? written.substring(0, 40) + "…" : written) + "”";
        if (!mark.isAmount(written)) {
            throw new IllegalArgumentException(shown + " is not an amount such as " + mark.example());
        }
        BigDecimal value = new BigDecimal(mark.plain(written));
        if (value.abs().compareTo(MOST) > 0) {
            throw new IllegalArgumentException(shown + " is more than 99,999,999,999.99, the most one amount can be");
        }
        try {
            BigDecimal scaled = value.setScale(currency.getDefaultFractionDigits());
            return new Money(scaled.unscaledValue().longValueExact(), currency);
        } catch (ArithmeticException tooFine) {
            throw new IllegalArgumentException(shown + " has more decimals than " + currency + " has", tooFine);
        }
    }

    /**
     * Reads an amount that somebody typed into {@code field}.
     *
     * @throws Refusal when it is no amount of this currency
     */
    public static Money typed(String text, Currency currency, String field) {
        try {
            return parse(text, currency);
        } catch (IllegalArgumentException unreadable) {
            throw Refusal.invalidField("amount-unreadable", field, unreadable.getMessage() + ".");
        }
    }

    /** Σ of the amounts; zero of {@code currency} when there are none. */
    public static Money sum(Collection<Money> amounts, Currency currency) {
        Money total = zero(currency);
        for (Money amount : amounts) {
            total = total.plus(amount);
        }
        return total;
    }

    public Money plus(Money other) {
        return new Money(Math.addExact(minor, same(other).minor), currency);
    }

    public Money minus(Money other) {
        return new Money(Math.subtractExact(minor, same(other).minor), currency);
    }

    public Money negated() {
        return new Money(Math.negateExact(minor), currency);
    }

    /** This amount times {@code factor}, rounded to the minor unit as the caller says. */
    public Money times(BigDecimal factor, RoundingMode rounding) {
        return rounded(BigDecimal.valueOf(minor).multiply(factor), rounding);
    }

    /** This amount divided by {@code divisor}, rounded once to the minor unit. */
    public Money dividedBy(BigDecimal divisor, RoundingMode rounding) {
        return rounded(BigDecimal.valueOf(minor).divide(divisor, 0, rounding), rounding);
    }

    private Money rounded(BigDecimal value, RoundingMode rounding) {
        return new Money(value.setScale(0, rounding).longValueExact(), currency);
    }

    public Money min(Money other) {
        return compareTo(other) <= 0 ? this : other;
    }

    public Money max(Money other) {
        return compareTo(other) >= 0 ? this : other;
    }

    public boolean isZero() {
        return minor == 0;
    }

    public boolean isPositive() {
        return minor > 0;
    }

    public boolean isNegative() {
        return minor < 0;
    }

    public BigDecimal toDecimal() {
        return BigDecimal.valueOf(minor, currency.getDefaultFractionDigits());
    }

    /** {@code 1225.00}: for programs. */
    public String plain() {
        // no currency has so many decimals that it would be written with an exponent
        return toDecimal().toString();
    }

    /** {@code 1,225.00}: for people, without the currency. */
    @Override
    public String toString() {
        return String.format(java.util.Locale.ROOT, "%,." + currency.getDefaultFractionDigits() + "f", toDecimal());
    }

    @Override
    public int compareTo(Money other) {
        return Long.compare(minor, same(other).minor);
    }

    private Money same(Money other) {
        if (!currency.equals(other.currency)) {
            throw new IllegalArgumentException("amounts of " + currency + " and " + other.currency + " do not add");
        }
        return other;
    }
}
