package leveltally.core.terms;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Set;
import leveltally.core.ledger.BankingDays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TermsTest {
    @Test
    void discountTermsGiveBothDates() {
        Terms.Schedule schedule = Terms.net(30).withDiscount("2", 10).scheduleFor(day("2026-03-05"));
        assertThat(schedule.discountDate()).contains(day("2026-03-15"));
        assertThat(schedule.dueDate()).isEqualTo(day("2026-04-04"));
    }

    @Test
    void netAfterMonthEnd() {
        Terms.Schedule schedule = Terms.netAfterMonthEnd(10).scheduleFor(day("2026-01-12"));
        assertThat(schedule.dueDate()).isEqualTo(day("2026-02-10"));
        assertThat(schedule.discountDate()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "15, 25, 2026-01-25, 2026-02-15",
        "15, 25, 2026-01-26, 2026-03-15",
        "31,   , 2026-01-10, 2026-02-28",
        "31,   , 2028-01-10, 2028-02-29",
        "15, 25, 2026-12-26, 2027-02-15"
    })
    void dayOfNextMonth(int day, Integer cutOff, String dated, String due) {
        assertThat(Terms.dayOfNextMonth(day, cutOff).scheduleFor(day(dated)).dueDate())
                .isEqualTo(day(due));
    }

    @Test
    void readsAsAClerkWritesIt() {
        assertThat(Terms.net(30).withDiscount("2", 10).inWords()).isEqualTo("2% 10, net 30");
    }

    @Test
    void rejectsADayThatNoMonthHas() {
        assertThatThrownBy(() -> Terms.dayOfNextMonth(32, null)).hasMessageContaining("between 1 and 31");
        assertThatThrownBy(() -> new Terms(Terms.Rule.NET, 30, null, BigDecimal.ONE, 10))
                .hasMessageContaining("rate");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "net 30",
                "2% 10, net 30",
                "1.5% 10, net 45",
                "net 10 after month end",
                "day 15 of next month, cut-off day 25",
                "day 31 of next month"
            })
    void readsWhatItWrites(String words) {
        assertThat(Terms.read(words).inWords()).isEqualTo(words);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "thirty days", "net", "2%, net 30", "day 32 of next month"})
    void rejectsWhatAreNoTerms(String words) {
        assertThatThrownBy(() -> Terms.read(words)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aTermsDateThatIsNoBankingDayIsShownAsSuchAndNotShifted() {
        LocalDate due = Terms.net(30).scheduleFor(LocalDate.of(2026, 3, 5)).dueDate();
        BankingDays days = new BankingDays(Set.of(LocalDate.of(2026, 4, 7)));
        assertThat(days.inWords(due)).isEqualTo("Sat 4 Apr 2026, no banking day");
        assertThat(days.inWords(due.plusDays(2))).isEqualTo("Mon 6 Apr 2026");
        assertThat(days.inWords(due.plusDays(3))).isEqualTo("Tue 7 Apr 2026, no banking day");
    }
}
