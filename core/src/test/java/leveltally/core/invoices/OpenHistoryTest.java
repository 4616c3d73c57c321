package leveltally.core.invoices;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OpenHistoryTest {
    /** Of 1,000.00 entered 1 Nov: 400.00 paid 3 Nov and brought back 12 Nov, 100.00 paid 20 Nov. */
    private static final OpenHistory HISTORY = new OpenHistory(
            "R-1",
            day("2026-11-01"),
            usd("1000"),
            Map.of(
                    day("2026-11-03"), usd("400"),
                    day("2026-11-12"), usd("-400"),
                    day("2026-11-20"), usd("100")));

    @ParameterizedTest
    @CsvSource({
        "2026-10-31, 0.00",
        "2026-11-01, 600.00",
        "2026-11-05, 600.00",
        "2026-11-11, 600.00",
        "2026-11-12, 900.00",
        "2026-11-25, 900.00"
    })
    void asMuchAsStaysOpenOnEveryLaterDay(String on, String settleable) {
        assertThat(HISTORY.settleableOn(day(on))).isEqualTo(usd(settleable));
    }

    @Test
    void rejectsMoreAndNamesTheDayFromWhichItCanBe() {
        HISTORY.mustAllow(usd("600"), day("2026-11-05"));
        assertThatThrownBy(() -> HISTORY.mustAllow(usd("600.01"), day("2026-11-05")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("from Thu 12 Nov 2026 on");
        assertThatThrownBy(() -> HISTORY.mustAllow(usd("900.01"), day("2026-11-25")))
                .isInstanceOf(Refusal.class);
    }

    /** Against the slow way: settle it, then look at every day whether it stays between zero and its amount. */
    @Test
    void allowsExactlyWhatKeepsEveryDayWithinBounds() {
        Random random = new Random(5);
        LocalDate first = day("2026-11-01");
        for (int round = 0; round < 2_000; round++) {
            Map<LocalDate, Money> rows = new HashMap<>();
            for (int paid = 0; paid < random.nextInt(4); paid++) {
                Money some = Money.ofMinor(random.nextInt(300), USD);
                LocalDate on = first.plusDays(random.nextInt(15));
                rows.merge(on, some, Money::plus);
                if (random.nextBoolean()) {
                    rows.merge(on.plusDays(random.nextInt(10)), some.negated(), Money::plus);
                }
            }
            OpenHistory history = new OpenHistory("R", first, usd("9"), rows);
            LocalDate on = first.plusDays(random.nextInt(30) - 3);
            Money wanted = Money.ofMinor(1 + random.nextInt(900), USD);
            boolean within = !on.isBefore(first);
            for (LocalDate day = on; within && day.isBefore(first.plusDays(40)); day = day.plusDays(1)) {
                LocalDate until = day;
                Money settled = rows.entrySet().stream()
                        .filter(row -> !row.getKey().isAfter(until))
                        .map(Map.Entry::getValue)
                        .reduce(wanted, Money::plus);
                within = settled.compareTo(usd("9")) <= 0;
            }
            assertThat(wanted.compareTo(history.settleableOn(on)) <= 0).isEqualTo(within);
        }
    }
}
