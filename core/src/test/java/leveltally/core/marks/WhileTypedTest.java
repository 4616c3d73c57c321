package leveltally.core.marks;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WhileTypedTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final WhileTyped.Earlier EARLIER = new WhileTyped.Earlier(
            new InvoiceId(7), new WhileTyped.Document("GRW-02217", LocalDate.of(2026, 11, 2), usd("120.00")));

    private static Money usd(String amount) {
        return Money.parse(amount, USD);
    }

    @ParameterizedTest(name = "{0} of {1} over {2}: {3}")
    @CsvSource({
        "GRW 2217, 2026-11-20, , the same reference",
        "grw2217, 2026-11-20, 120.00, the same reference and amount",
        "GRW 2217, 2026-11-20, 99.00, the same reference",
        "GRW 2271, 2026-11-20, , a reference with two neighbouring characters swapped",
        "GRW 2218, 2026-11-09, 120.00, a reference one digit away and amount",
        "GRW 2218, 2026-11-10, 120.00, ''",
        "GRW 2218, 2026-11-03, 99.00, ''",
        "GRW 2218, 2026-11-03, , ''",
        "GRW 9999, 2026-11-02, 120.00, ''",
        "'--', 2026-11-02, 120.00, ''",
    })
    void aSecondTimeIsSeenWhileItIsTyped(String reference, LocalDate date, String amount, String words) {
        var typed = new WhileTyped.Document(reference, date, amount == null ? null : usd(amount));
        assertThat(WhileTyped.secondTime(typed, List.of(EARLIER)))
                .extracting(WhileTyped.Likely::words)
                .isEqualTo(words.isEmpty() ? List.of() : List.of(words));
    }
}
