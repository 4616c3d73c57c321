package leveltally.core.ledger;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

class TrialBalanceTest {
    @Test
    void closesWithWhatMovedAndAddsNoTwoCurrencies() {
        Money euro = Money.ofMinor(700, "EUR");
        TrialBalance balance = TrialBalance.of(List.of(
                new TrialBalance.Line("1010 Cash", usd("500"), usd("20"), usd("120")),
                new TrialBalance.Line("2000 Payables", usd("-500"), usd("120"), usd("20")),
                new TrialBalance.Line("1030 Cash", Money.ofMinor(0, "EUR"), euro, euro)));
        assertThat(balance.lines()).extracting(TrialBalance.Line::closing).startsWith(usd("400"), usd("-400"));
        assertThat(balance.totals())
                .containsExactly(new TrialBalance.Total(usd("140"), usd("140")), new TrialBalance.Total(euro, euro));
    }
}
