package leveltally.core.wires;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConfirmationTest {
    private static Confirmation typed(String reference, String fee, String sentOn) {
        return Confirmation.typed(reference, fee, USD, day(sentOn), day("2026-11-10"), day("2026-11-12"));
    }

    @Test
    void isKeptInOneForm() {
        assertThat(typed(" ft 88-12 ", "12.50", "2026-11-11"))
                .isEqualTo(new Confirmation("FT 88-12", usd("12.50"), day("2026-11-11")));
        assertThat(typed("FT1", " ", "2026-11-12").fee()).isEqualTo(usd("0.00"));
    }

    @ParameterizedTest(name = "rejects {0}, {1}, {2}: at {3}")
    @CsvSource({
        "'', 1.00, 2026-11-11, bankReference",
        "FT_1, 1.00, 2026-11-11, bankReference",
        "FT1, -1.00, 2026-11-11, fee",
        "FT1, '1,5', 2026-11-11, fee",
        "FT1, '', 2026-11-09, sentOn",
        "FT1, '', 2026-11-13, sentOn",
    })
    void rejects(String reference, String fee, String sentOn, String field) {
        assertThatThrownBy(() -> typed(reference, fee, sentOn))
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.fields()).containsOnlyKeys(field));
    }
}
