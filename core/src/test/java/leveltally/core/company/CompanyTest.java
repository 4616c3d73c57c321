package leveltally.core.company;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.YearMonth;
import java.time.ZoneId;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CompanyTest {
    @Test
    void blanksAroundAndBetweenTheLinesAreNotKept() {
        Company company = new Company(" Marrow Bay Ferries ", List.of(" 4 Ropewalk Quay", "", "Skerrow "), 2, 180);
        assertThat(company.name()).isEqualTo("Marrow Bay Ferries");
        assertThat(company.address()).containsExactly("4 Ropewalk Quay", "Skerrow");
    }

    @ParameterizedTest
    @CsvSource({
        "'', 1, 1, 0, 180, name",
        "x, 0, 1, 0, 180, address",
        "x, 6, 1, 0, 180, address",
        "x, 1, 51, 0, 180, address",
        "x, 1, 1, -1, 180, graceDays",
        "x, 1, 1, 31, 180, graceDays",
        "x, 1, 1, 0, 29, staleDays",
        "x, 1, 1, 0, 731, staleDays"
    })
    void saysAtItsFieldWhatCannotBeSo(String name, int lines, int length, int grace, int stale, String field) {
        List<String> address = Collections.nCopies(lines, "x".repeat(length));
        assertThatThrownBy(() -> new Company(name, address, grace, stale))
                .isInstanceOfSatisfying(
                        Refusal.class,
                        refusal -> assertThat(refusal.fields().keySet()).isEqualTo(Set.of(field)));
    }

    @Test
    void aYearBeginsWithAMonthOfItsOwn() {
        YearMonth november = YearMonth.of(2026, 11);
        assertThat(FiscalYear.OF_THE_CALENDAR.inWords(november)).isEqualTo("month 11 of 2026");
        assertThat(FiscalYear.beginning(7).inWords(november)).isEqualTo("month 5 of 2026/27");
        assertThat(FiscalYear.beginning(12).inWords(november)).isEqualTo("month 12 of 2025/26");
        assertThat(FiscalYear.beginning(11).inWords(november)).isEqualTo("month 1 of 2026/27");
        assertThat(FiscalYear.beginning(7).inWords(YearMonth.of(1999, 7))).isEqualTo("month 1 of 1999/00");
        assertThatThrownBy(() -> FiscalYear.beginning(13)).hasMessageContaining("from 1, January");
    }

    @Test
    void aZoneIsOneThereIs() {
        assertThat(Company.zone(" europe/berlin ")).isEqualTo(ZoneId.of("Europe/Berlin"));
        assertThat(Company.zone("")).isNull();
        assertThatThrownBy(() -> Company.zone("Skerrow")).hasMessageContaining("no time zone");
    }
}
