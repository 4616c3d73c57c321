package leveltally.core.batches;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import org.junit.jupiter.api.Test;

class LineTotalsTest {
    private static final Currency USD = Currency.getInstance("USD");

    /** 800.00 at 2% with a credit of 250.00: discount 11.00, cash 539.00. */
    @Test
    void whatIsSettledLessTheDiscountIsTheCash() {
        ClaimLine paid = new ClaimLine.Invoice(new InvoiceId(1), "R", usd("800"), usd("11"), usd("250"));
        ClaimLine credit = new ClaimLine.Credit(new InvoiceId(2), "C", usd("250"));
        assertThat(LineTotals.of(List.of(paid, credit), USD))
                .isEqualTo(new LineTotals(2, usd("550"), usd("11"), usd("539")));
        assertThat(LineTotals.of(List.of(), USD)).isEqualTo(new LineTotals(0, usd("0"), usd("0"), usd("0")));
    }
}
