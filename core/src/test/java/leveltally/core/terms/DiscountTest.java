package leveltally.core.terms;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DiscountTest {
    private static final BigDecimal TWO = new BigDecimal("0.02");

    private static Discount until(String date) {
        return Discount.after(usd("1250"), TWO, day(date), Money.zero(USD), Money.zero(USD));
    }

    @Test
    void freightIsNotDiscountable() {
        assertThat(Discount.full(usd("1200.00"), TWO)).isEqualTo(usd("24.00"));
    }

    @ParameterizedTest
    @CsvSource({"2026-11-15, 0, true", "2026-11-13, 0, true", "2026-11-12, 0, false", "2026-11-12, 1, true"})
    void livesUpToItsDateAndGrace(String until, int grace, boolean lives) {
        assertThat(until(until).livesOn(day("2026-11-13"), grace)).isEqualTo(lives);
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-15, 0, true",
        "2026-11-26, 0, true",
        "2026-11-27, 0, false",
        "2026-11-12, 0, false",
        "2026-11-26, 1, false"
    })
    void lostIfItWaitsLiesBetweenCheckDateAndNextRun(String until, int grace, boolean lost) {
        assertThat(until(until).lostIfItWaits(day("2026-11-13"), day("2026-11-27"), grace))
                .isEqualTo(lost);
    }

    @ParameterizedTest
    @CsvSource({
        "20.00, 980.00, 2026-03-15, 2026-04-04, 37.24",
        "10.00, 990.00, 2026-03-15, 2026-04-19, 10.53",
        "25.00, 1225.00, 2026-11-13, 2026-12-05, 33.86"
    })
    void yearlyReturn(String discount, String cash, String paid, String otherwise, BigDecimal percent) {
        assertThat(Discount.yearlyReturn(usd(discount), usd(cash), day(paid), day(otherwise)))
                .contains(percent);
    }

    @Test
    void noYearlyReturnWithoutDays() {
        assertThat(Discount.yearlyReturn(usd("20"), usd("980"), day("2026-04-04"), day("2026-04-04")))
                .isEmpty();
    }
}
