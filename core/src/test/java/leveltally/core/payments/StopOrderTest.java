package leveltally.core.payments;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StopOrderTest {
    private static final StopOrder ASKED = StopOrder.asked(day("2026-03-02"));
    private static final LocalDate TODAY = day("2026-03-10");

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "-", textBlock = """
            -          | 2026-03-10 | stop asked on Mon 2 Mar 2026, not confirmed by the bank | true
            never      | 2028-03-10 | stop confirmed, S-1                                     | false
            2026-09-05 | 2026-08-06 | stop until Sat 5 Sep 2026, S-1                          | false
            2026-09-05 | 2026-08-07 | stop until Sat 5 Sep 2026, S-1                          | true
            2026-09-05 | 2026-09-05 | stop until Sat 5 Sep 2026, S-1                          | true
            2026-09-05 | 2026-09-06 | stop ended on Sat 5 Sep 2026: the bank may pay it       | true
            """)
    void saysWhereItStandsAndWhenSomebodyShouldLook(String until, LocalDate today, String words, boolean look) {
        StopOrder stop = until == null
                ? ASKED
                : ASKED.confirmed(day("2026-03-05"), " S-1 ", until.equals("never") ? null : day(until), TODAY);
        assertThat(stop.inWords(today)).isEqualTo(words);
        assertThat(stop.needsALook(today)).isEqualTo(look);
    }

    @Test
    void rejectsDaysThatDoNotFollowEachOther() {
        assertThatThrownBy(() -> ASKED.confirmed(day("2026-03-01"), "S", null, TODAY))
                .hasMessageContaining("when it was asked");
        assertThatThrownBy(() -> ASKED.confirmed(day("2026-03-11"), "S", null, TODAY))
                .hasMessageContaining("to today");
        assertThatThrownBy(() -> ASKED.confirmed(TODAY, "S", day("2026-03-09"), TODAY))
                .hasMessageContaining("or later");
        assertThatThrownBy(() -> ASKED.confirmed(TODAY, "x".repeat(61), null, TODAY))
                .hasMessageContaining("60 characters");
    }
}
