package leveltally.core.workline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SoughtTest {
    private static final Currency USD = Currency.getInstance("USD");

    @Test
    void aNumberFindsAllThatBeginWithItsDigits() {
        Sought sought = Sought.of(" 412 ");
        for (long number : new long[] {412, 4120, 4129, 41299, 412_000_000_000L}) {
            assertThat(sought.numbersBeginningSo())
                    .as("%d", number)
                    .anyMatch(range -> range.first() <= number && number <= range.last());
        }
        for (long number : new long[] {41, 413, 411, 5412, 41300}) {
            assertThat(sought.numbersBeginningSo())
                    .as("%d", number)
                    .noneMatch(range -> range.first() <= number && number <= range.last());
        }
        assertThat(Sought.of("0412").numbersBeginningSo()).isEmpty();
        assertThat(Sought.of("4a").number()).isEmpty();
    }

    @Test
    void lettersMayStandBeforeANumber() {
        assertThat(Sought.of("H-101").lettered()).contains(new Sought.Lettered("H-", new Sought("101")));
        for (String none : new String[] {"101", "H-", "-101", "H-1x", "H 101"}) {
            assertThat(Sought.of(none).lettered()).as(none).isEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource({"'1,225.00', 1225.00", "1225, 1225.00", "0.05, 0.05"})
    void anAmountIsReadAsPeopleWriteIt(String typed, String amount) {
        assertThat(Sought.of(typed).amountIn(USD)).contains(Money.parse(amount, USD));
    }

    @ParameterizedTest
    @ValueSource(strings = {"1,22", "1.234", "-5", "0", "12a", "999999999999999999999"})
    void whatIsNoAmountIsNone(String typed) {
        assertThat(Sought.of(typed).amountIn(USD)).isEmpty();
    }

    @Test
    void whatMeansSomethingInSqlMeansNothingHere() {
        assertThat(Sought.of("50%_\\").within()).isEqualTo("%50\\%\\_\\\\%");
        assertThat(Sought.of("ab_").backwards()).isEqualTo("\\_ba%");
        assertThat(Sought.of("x").isTooShort()).isTrue();
        assertThat(Sought.of("x".repeat(500)).text()).hasSize(60);
    }
}
