package leveltally.core.vendors;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

class VendorAccountTest {
    @Test
    void theBalanceRunsForEachCurrency() {
        Money euro = Money.ofMinor(500, "EUR");
        VendorAccount account = VendorAccount.of(List.of(
                new VendorAccount.Movement(day("2026-01-05"), 1, "Invoice", "A", usd("100")),
                new VendorAccount.Movement(day("2026-01-06"), 2, "Invoice", "B", euro),
                new VendorAccount.Movement(day("2026-01-07"), 1, "Paid", "A", usd("-60.50"))));
        assertThat(account.rows())
                .extracting(row -> row.balance().toString())
                .containsExactly("100.00", "5.00", "39.50");
    }
}
