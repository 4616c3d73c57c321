package leveltally.core.money;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Currency;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class MoneyTest {
    @ParameterizedTest
    @CsvSource({"1225, 1225.00", "'1,225.5', 1225.50", "0.01, 0.01", "-3.10, -3.10", "'1,234,567.8', 1234567.80"})
    void readsAmounts(String text, String plain) {
        assertThat(usd(text).plain()).isEqualTo(plain);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "abc",
                "1.234",
                "1e5",
                "12345678901234567",
                "1..2",
                "=1+1",
                "1250,00",
                "12,50",
                "1,234,5.00",
                "1,2345",
                ",123",
                "1.250,00",
                "100,000,000,000.00",
                "1E9"
            })
    void rejectsWhatIsNoAmount(String text) {
        assertThatThrownBy(() -> usd(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource({"'1250,00', 1250.00", "'1.250,5', 1250.50", "'1.234.567,80', 1234567.80", "1250, 1250.00"})
    void readsCommasAsDecimalMarksWhereTheFileSaysSo(String text, String plain) {
        assertThat(Money.parse(text, USD, DecimalMark.COMMA).plain()).isEqualTo(plain);
    }

    @ParameterizedTest
    @ValueSource(strings = {"1250.00", "1,250.00", "1.25,00", "12.50"})
    void rejectsPointsAsDecimalMarksThere(String text) {
        assertThatThrownBy(() -> Money.parse(text, USD, DecimalMark.COMMA))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("1225,00");
    }

    @ParameterizedTest
    @ValueSource(strings = {"XAU", "XXX"})
    void rejectsWhatHasNoMinorUnit(String code) {
        assertThatThrownBy(() -> Money.ofMinor(1, code)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void takesTheLargestAmountThereIs() {
        assertThat(usd("99,999,999,999.99").minor()).isEqualTo(9_999_999_999_999L);
    }

    @Test
    void rejectsAddingOtherCurrencies() {
        Money euro = Money.ofMinor(100, Currency.getInstance("EUR"));
        assertThatThrownBy(() -> usd("1").plus(euro))
                .hasMessageContaining("USD")
                .hasMessageContaining("EUR");
    }

    @Test
    void rejectsOverflow() {
        Money most = Money.ofMinor(Long.MAX_VALUE, USD);
        assertThatThrownBy(() -> most.plus(usd("0.01"))).isInstanceOf(ArithmeticException.class);
    }

    @Test
    void roundsHalfUpOnlyWhereAsked() {
        assertThat(usd("333.33").times(new BigDecimal("0.015"), RoundingMode.HALF_UP))
                .isEqualTo(usd("5.00"));
        assertThat(usd("0.25").dividedBy(new BigDecimal("0.98"), RoundingMode.HALF_UP))
                .isEqualTo(usd("0.26"));
    }

    @Test
    void showsThousandsAndTheCurrencysDecimals() {
        assertThat(usd("1234567.8")).hasToString("1,234,567.80");
        assertThat(Money.ofMinor(1500, Currency.getInstance("JPY"))).hasToString("1,500");
    }
}
