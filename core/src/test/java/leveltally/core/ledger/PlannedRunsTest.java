package leveltally.core.ledger;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlannedRunsTest {
    /** Today is Thursday 12 November. */
    @ParameterizedTest
    @CsvSource({
        ", , 2026-11-13, 2026-11-20, 2026-11-27",
        "2026-11-13, 2026-11-20, 2026-11-13, 2026-11-20, 2026-11-20",
        "2026-11-06, 2026-11-18, 2026-11-18, 2026-11-25, 2026-12-02",
        "2026-10-30, 2026-11-06, 2026-11-13, 2026-11-20, 2026-11-27"
    })
    void proposesThePlannedRunsThatHaveNotPassed(
            String current, String following, String check, String dueBy, String next) {
        PlannedRuns runs =
                new PlannedRuns(current == null ? null : day(current), following == null ? null : day(following));
        var checkDate = runs.checkDate(day("2026-11-12"));
        assertThat(checkDate).isEqualTo(day(check));
        assertThat(runs.dueBy(checkDate)).isEqualTo(day(dueBy));
        assertThat(runs.nextRun(checkDate)).isEqualTo(day(next));
    }
}
