package leveltally.core.terms;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import leveltally.core.Refusal;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DiscountTest {
    private static final BigDecimal TWO = new BigDecimal("0.02");

    private static Discount until(String date) {
        return Discount.whole(usd("1250"), TWO, day(date));
    }

    @Test
    void freightIsNotDiscountable() {
        Money discountable = Discount.discountable(usd("1250.00"), usd("50.00"));
        assertThat(discountable).isEqualTo(usd("1200.00"));
        assertThat(Discount.whole(discountable, TWO, null).left()).isEqualTo(usd("24.00"));
        assertThatThrownBy(() -> Discount.discountable(usd("10"), usd("10.01"))).isInstanceOf(Refusal.class);
    }

    /** What was taken comes off the document's discount, nothing else: 686.31 at 2%, paying 144.74, leaves 10.78. */
    @Test
    void whatWasTakenComesOffTheDocumentsDiscount() {
        OpenInvoice invoice = invoice(1, "686.31", "2026-11-01", "2026-12-01", "2", "2026-11-15");
        PartPayment part = invoice.pay(usd("144.74"), day("2026-11-13"), 0);
        assertThat(part.discount()).isEqualTo(usd("2.95"));
        Discount after =
                Discount.after(usd("686.31"), TWO, day("2026-11-15"), part.settled(), Money.zero(USD), part.discount());
        assertThat(after.left()).isEqualTo(usd("10.78"));
    }

    @Test
    void whatCreditsSettledEarnsNothing() {
        Discount after = Discount.after(usd("800"), TWO, null, usd("250"), usd("250"), Money.zero(USD));
        assertThat(after.left()).isEqualTo(usd("11.00"));
        assertThat(Discount.whole(usd("800"), TWO, null).lessCredit(usd("250")).left())
                .isEqualTo(usd("11.00"));
    }

    @Test
    void aDiscountThatRoundsToNothingIsNone() {
        Discount none = Discount.whole(usd("0.20"), TWO, day("2026-11-15"));
        assertThat(none.livesOn(day("2026-11-13"), 0)).isFalse();
        assertThat(none.lostIfItWaits(day("2026-11-13"), day("2026-11-27"), 0)).isFalse();
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

    /** Due 14 Nov, next run 27 Nov, paid 13 Nov: 14 days, not one. */
    @Test
    void theYearlyReturnCountsToTheDayItWouldOtherwiseBePaid() {
        assertThat(Discount.otherwisePaid(day("2026-11-14"), day("2026-11-27"))).isEqualTo(day("2026-11-27"));
        assertThat(Discount.otherwisePaid(day("2026-12-05"), day("2026-11-27"))).isEqualTo(day("2026-12-05"));
        assertThat(Discount.otherwisePaid(day("2026-12-05"), null)).isEqualTo(day("2026-12-05"));
        assertThat(Discount.yearlyReturn(usd("25.00"), usd("1225.00"), day("2026-11-13"), day("2026-11-27")))
                .contains(new BigDecimal("53.21"));
    }

    @Test
    void noYearlyReturnWithoutDays() {
        assertThat(Discount.yearlyReturn(usd("20"), usd("980"), day("2026-04-04"), day("2026-04-04")))
                .isEmpty();
    }
}
