package leveltally.core.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SeriesRulesTest {
    @ParameterizedTest(name = "{0}{1}–{2} beside {3}{4}–{5}: {6}")
    @CsvSource({
        "'', 41200, , '', 7300, , overlap",
        "'', 7300, 7999, '', 41200, , apart",
        "'', 41200, , '', 7300, 41199, apart",
        "'', 41200, , '', 7300, 41200, overlap",
        "'', 100, 200, '', 201, 300, apart",
        "'', 100, 200, '', 150, 160, overlap",
        "A, 1, , '', 1, , apart",
        "A, 1, , a, 1, , overlap",
    })
    void twoSeriesOfOneAccountNeverGiveTheSameNumber(
            String prefix, long first, Long last, String otherPrefix, long otherFirst, Long otherLast, String outcome) {
        NumberRange one = new NumberRange(prefix, first, last);
        NumberRange other = new NumberRange(otherPrefix, otherFirst, otherLast);
        if (outcome.equals("apart")) {
            assertThatCode(() -> one.mustLieApartFrom(other, "Checks")).doesNotThrowAnyException();
            assertThatCode(() -> other.mustLieApartFrom(one, "Checks")).doesNotThrowAnyException();
        } else {
            assertThatThrownBy(() -> one.mustLieApartFrom(other, "Checks")).hasMessageContaining("a prefix of its own");
            assertThatThrownBy(() -> other.mustLieApartFrom(one, "Checks")).hasMessageContaining("The series Checks");
        }
    }

    @Test
    void aStockHoldsAsManyAsItHas() {
        NumberRange stock = new NumberRange("", 100, 110L);
        assertThatCode(() -> stock.mustHold(100, 11)).doesNotThrowAnyException();
        assertThatThrownBy(() -> stock.mustHold(101, 11)).hasMessageContaining("10 are left, and 11 are wanted");
        assertThatThrownBy(() -> stock.mustHold(111, 1)).hasMessageContaining("none is left, and 1 is wanted");
        assertThatThrownBy(() -> new NumberRange("", 100, 99L)).hasMessageContaining("between the first");
        assertThatThrownBy(() -> new NumberRange("a b", 1, null)).hasMessageContaining("prefix");
        assertThatThrownBy(() -> new NumberRange("", 0, null)).hasMessageContaining("first number");
    }

    @Test
    void theNextNumberOnlyGoesOnAndSaysWhy() {
        assertThat(new NextNumber(41250, 41300, "a box fell into the harbour").skipped())
                .isEqualTo(50);
        assertThatThrownBy(() -> new NextNumber(41250, 41249, "x")).hasMessageContaining("cannot be 41249");
        assertThatThrownBy(() -> new NextNumber(41250, 41250, "x")).hasMessageContaining("already");
        assertThatThrownBy(() -> new NextNumber(41250, 51251, "x")).hasMessageContaining("pass over 10001");
        assertThatThrownBy(() -> new NextNumber(41250, 41251, " ")).hasMessage("Say why 41250 will never be used.");
        assertThatThrownBy(() -> new NextNumber(41250, 41260, " "))
                .hasMessage("Say why 41250 to 41259 will never be used.");
    }
}
