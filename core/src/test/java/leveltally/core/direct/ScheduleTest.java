package leveltally.core.direct;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ScheduleTest {
    private static Schedule of(Rhythm rhythm, String first, @Nullable String until) {
        return new Schedule(
                "Quay", "QUAY {month}", "5400", usd("900.00"), rhythm, day(first), until == null ? null : day(until));
    }

    @ParameterizedTest(name = "{0} from {1} until {2}, looked at to {3}: {4}")
    @CsvSource({
        // the last of a month stays the last, and comes back to the 31st
        "MONTHLY, 2026-01-31, , 2026-04-30, 2026-01-31 2026-02-28 2026-03-31 2026-04-30",
        "MONTHLY, 2026-01-31, , 2026-02-27, 2026-01-31",
        "QUARTERLY, 2025-11-30, , 2026-06-01, 2025-11-30 2026-02-28 2026-05-30",
        "YEARLY, 2024-02-29, , 2026-12-31, 2024-02-29 2025-02-28 2026-02-28",
        "TWO_WEEKS, 2026-11-06, 2026-11-30, 2026-12-31, 2026-11-06 2026-11-20",
        "WEEKLY, 2026-11-06, 2026-11-20, 2026-12-31, 2026-11-06 2026-11-13 2026-11-20",
        "WEEKLY, 2026-11-06, , 2026-11-05, ''",
    })
    void itsDays(Rhythm rhythm, String first, @Nullable String until, String last, String days) {
        List<LocalDate> wanted = Stream.of(days.split(" "))
                .filter(text -> !text.isEmpty())
                .map(LocalDate::parse)
                .toList();
        assertThat(of(rhythm, first, until).daysTo(day(last))).isEqualTo(wanted);
    }

    @Test
    void onlyItsOwnDaysAreItsDays() {
        Schedule monthly = of(Rhythm.MONTHLY, "2026-01-31", "2026-06-30");
        assertThat(monthly.fallsOn(day("2026-02-28"))).isTrue();
        assertThat(monthly.fallsOn(day("2026-03-30"))).isFalse();
        assertThat(monthly.fallsOn(day("2026-07-31"))).isFalse();
    }

    /** Nobody waits for the days of a thousand ages to be counted. */
    @Test
    void whatLiesInAnotherAgeIsRefusedAtOnce() {
        assertThat(of(Rhythm.WEEKLY, "2026-11-06", null).fallsOn(LocalDate.MAX)).isFalse();
        assertThat(of(Rhythm.WEEKLY, "2026-11-06", null).fallsOn(day("2126-11-01")))
                .isTrue();
        assertThatThrownBy(() -> of(Rhythm.WEEKLY, "2026-11-06", "2127-01-01"))
                .hasMessageContaining("more than 100 years");
        assertThatThrownBy(() -> Schedule.beginning(LocalDate.MAX, day("2026-11-06")))
                .hasMessageContaining("years ahead");
        assertThat(Schedule.beginning(day("2031-11-06"), day("2026-11-06"))).isEqualTo(day("2031-11-06"));
    }

    @ParameterizedTest(name = "monthly from 1 Oct, dealt with to {0}; {1} from {2}: {3}")
    @CsvSource({
        ", WEEKLY, 2026-10-05, true",
        "2026-11-01, MONTHLY, 2026-10-01, true",
        "2026-11-01, MONTHLY, 2026-11-02, true",
        "2026-11-01, MONTHLY, 2026-11-01, false",
        "2026-11-01, MONTHLY, 2026-10-05, false",
        "2026-11-01, WEEKLY, 2026-10-01, false",
        "2026-11-01, WEEKLY, 2026-11-05, true",
    })
    void daysThatAreCountedAnewComeAfterWhatWasDealtWith(
            @Nullable LocalDate dealtWith, Rhythm rhythm, String first, boolean taken) {
        Schedule before = of(Rhythm.MONTHLY, "2026-10-01", null);
        Schedule next = of(rhythm, first, null);
        if (taken) {
            assertThat(next.inPlaceOf(before, dealtWith)).isEqualTo(next);
        } else {
            assertThatThrownBy(() -> next.inPlaceOf(before, dealtWith))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("would come up once more");
        }
    }

    @Test
    void theReferenceNamesItsMonth() {
        assertThat(of(Rhythm.MONTHLY, "2026-01-31", null).referenceOn(day("2026-12-31")))
                .isEqualTo("QUAY 2026-12");
    }

    @Test
    void rejectsWhatCannotBeSo() {
        assertThatThrownBy(() -> of(Rhythm.WEEKLY, "2026-11-06", "2026-11-05")).hasMessageContaining("ends before");
        assertThatThrownBy(() -> new Schedule("Quay", "", "5400", usd("1.00"), Rhythm.WEEKLY, day("2026-11-06"), null))
                .hasMessageContaining("what the payee shall read");
        assertThatThrownBy(() -> new Schedule("Quay", "R", "5400", usd("0.00"), Rhythm.WEEKLY, day("2026-11-06"), null))
                .hasMessageContaining("above zero");
        assertThatThrownBy(() -> Schedule.beginning(day("2025-11-10"), day("2026-11-12")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("more than a year back");
    }
}
