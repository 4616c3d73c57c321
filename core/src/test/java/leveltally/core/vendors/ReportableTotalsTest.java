package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import java.util.List;
import leveltally.core.money.Money;
import leveltally.core.vendors.ReportableTotals.Paid;
import leveltally.core.vendors.ReportableTotals.Year;
import org.junit.jupiter.api.Test;

/** What a vendor was paid in a year, and what later undoing does to it. */
class ReportableTotalsTest {
    private static final Currency USD = Currency.getInstance("USD");

    private static Money usd(String amount) {
        return Money.parse(amount, USD);
    }

    @Test
    void aPaymentUndoneInItsYearReducesItAndOneUndoneLaterMovesNothing() {
        ReportableTotals totals = ReportableTotals.of(List.of(
                new Paid(2025, null, 3, usd("900.00")),
                new Paid(2025, 2025, 1, usd("50.00")),
                new Paid(2025, 2026, 2, usd("125.00")),
                new Paid(2026, null, 1, usd("10.00")),
                new Paid(2026, 2026, 1, usd("7.00"))));
        assertThat(totals.years())
                .containsExactly(new Year(2026, 1, usd("10.00"), 0), new Year(2025, 5, usd("1025.00"), 2));
    }

    @Test
    void currenciesAreNeverAdded() {
        Money euro = Money.parse("40.00", Currency.getInstance("EUR"));
        ReportableTotals totals =
                ReportableTotals.of(List.of(new Paid(2026, null, 1, usd("10.00")), new Paid(2026, null, 2, euro)));
        assertThat(totals.years()).containsExactly(new Year(2026, 2, euro, 0), new Year(2026, 1, usd("10.00"), 0));
    }

    @Test
    void aYearInWhichEverythingWasUndoneIsNotListed() {
        assertThat(ReportableTotals.of(List.of(new Paid(2026, 2026, 1, usd("7.00"))))
                        .years())
                .isEmpty();
    }
}
