package leveltally.core.electronic;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankingDays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** On which days a file can be paid: hours, weekends, a holiday that is kept and one nobody entered. */
class CutOffTest {
    private static final ZoneId ZONE = ZoneId.of("America/New_York");

    /** Thursday 26 November is a holiday. */
    private static final BankingDays DAYS = new BankingDays(Set.of(day("2026-11-26")));

    private static CutOff cutOff(int ahead) {
        return new CutOff(LocalTime.of(17, 0), ZONE, ahead, DAYS);
    }

    private static Instant at(String time) {
        return day("2026-11-12").atTime(LocalTime.parse(time)).atZone(ZONE).toInstant();
    }

    @ParameterizedTest
    @CsvSource({
        // today, clock, banking days ahead, earliest
        "2026-11-12, 16:59, 0, 2026-11-12",
        "2026-11-12, 17:00, 0, 2026-11-13",
        "2026-11-12, 16:59, 1, 2026-11-13",
        "2026-11-13, 17:00, 1, 2026-11-17",
        "2026-11-14, 09:00, 0, 2026-11-16",
        "2026-11-14, 09:00, 1, 2026-11-17",
        "2026-11-25, 17:30, 0, 2026-11-27",
        "2026-11-25, 12:00, 2, 2026-11-30",
        "2026-11-26, 12:00, 0, 2026-11-27"
    })
    void theFirstDayOfAFile(LocalDate today, String clock, int ahead, LocalDate earliest) {
        assertThat(cutOff(ahead).earliest(today, at(clock))).isEqualTo(earliest);
        assertThatCode(() -> cutOff(ahead).mustAllow(earliest, today, at(clock)))
                .doesNotThrowAnyException();
    }

    @Test
    void whatCannotBeIsRefusedWithTheNearest() {
        CutOff one = cutOff(1);
        assertThatThrownBy(() -> one.mustAllow(day("2026-11-12"), day("2026-11-12"), at("09:00")))
                .isInstanceOf(Refusal.class)
                .hasMessage(
                        "A file that is handed over now is paid on Fri 13 Nov 2026 at the earliest; the bank takes files"
                                + " until 17:00, 1 banking day ahead. The nearest day is Fri 13 Nov 2026.");
        assertThatThrownBy(() -> one.mustAllow(day("2026-11-26"), day("2026-11-12"), at("09:00")))
                .hasMessage("Thu 26 Nov 2026 is no banking day. The nearest day is Fri 27 Nov 2026.");
        // a cut-off that passed while the page was open
        assertThatCode(() -> one.mustAllow(day("2026-11-13"), day("2026-11-12"), at("16:59")))
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> one.mustAllow(day("2026-11-13"), day("2026-11-12"), at("17:00")))
                .hasMessageContaining("The nearest day is Mon 16 Nov 2026");
    }

    @Test
    void theHourIsTheBanks() {
        Instant elsewhere = day("2026-11-12").atTime(21, 30).toInstant(ZoneOffset.UTC);
        // half past four at the bank
        assertThat(cutOff(0).earliest(day("2026-11-12"), elsewhere)).isEqualTo(day("2026-11-12"));
    }
}
