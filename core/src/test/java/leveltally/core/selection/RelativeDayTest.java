package leveltally.core.selection;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RelativeDayTest {
    @ParameterizedTest
    @CsvSource({
        "2026-11-20, 2026-11-20",
        "today, 2026-11-12",
        "Friday, 2026-11-13",
        "thursday, 2026-11-19",
        "next Friday, 2026-11-20",
        "Next  thursday, 2026-11-19",
        "in 10 days, 2026-11-22",
        "in 1 week, 2026-11-19",
        "2 months ago, 2026-09-12",
        "end of month, 2026-11-30",
        "end of next month, 2026-12-31",
        "fri, 2026-11-13",
        "next wednesday, 2026-11-18",
        "20 nov, 2026-11-20",
        "Fri 20 Nov, 2026-11-20",
        "3 january, 2027-01-03",
        "29 feb 2028, 2028-02-29"
    })
    void readsDaysThatMoveWithTheBusinessDate(String words, String day) {
        assertThat(RelativeDay.read(words, day("2026-11-12"))).isEqualTo(day(day));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "2026-02-30", "31.12.2026", "soon", "in days", "9999-01-01", "0000-00-00"})
    void rejectsWhatIsNoDay(String words) {
        assertThatThrownBy(() -> RelativeDay.read(words, day("2026-11-12")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is no day");
    }
}
