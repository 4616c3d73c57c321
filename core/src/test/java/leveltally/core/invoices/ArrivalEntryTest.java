package leveltally.core.invoices;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalLine;
import org.junit.jupiter.api.Test;

class ArrivalEntryTest {
    private static final AccountId GOODS = new AccountId(5200);
    private static final AccountId REBATE = new AccountId(5290);
    private static final AccountId PAYABLES = new AccountId(2000);

    private static List<ArrivalEntry.Line> lines(String goods, String rebate) {
        return List.of(new ArrivalEntry.Line(GOODS, usd(goods)), new ArrivalEntry.Line(REBATE, usd(rebate)));
    }

    @Test
    void anAllowanceStandsOnTheOtherSide() {
        assertThat(ArrivalEntry.of(day("2026-11-02"), "x", false, lines("100", "-30"), PAYABLES)
                        .lines())
                .containsExactly(
                        JournalLine.debit(GOODS, usd("100")),
                        JournalLine.credit(REBATE, usd("30")),
                        JournalLine.credit(PAYABLES, usd("70")));
        assertThat(ArrivalEntry.of(day("2026-11-02"), "x", true, lines("100", "-30"), PAYABLES)
                        .lines())
                .containsExactly(
                        JournalLine.credit(GOODS, usd("100")),
                        JournalLine.debit(REBATE, usd("30")),
                        JournalLine.debit(PAYABLES, usd("70")));
    }

    @Test
    void aLineOfZeroSaysNothingToTheLedger() {
        assertThat(ArrivalEntry.of(day("2026-11-02"), "x", false, lines("100", "0"), PAYABLES)
                        .lines())
                .hasSize(2);
    }

    @Test
    void rejectsLinesThatComeToNothing() {
        assertThatThrownBy(() -> ArrivalEntry.of(day("2026-11-02"), "x", false, lines("30", "-30"), PAYABLES))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("more than zero");
    }
}
