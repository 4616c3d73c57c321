package leveltally.core.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StockBoxesTest {
    private static final StockBoxes BOXES = new StockBoxes(List.of(
            new StockBoxes.Box(2, 7501, 7700, false),
            new StockBoxes.Box(1, 7301, 7500, true),
            new StockBoxes.Box(3, 7901, 8000, false)));
    private static final NumberRange SERIES = new NumberRange("", 7001, 8500L);

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            7304 | The box 7301 to 7500 is open; 7304 is next in it.
            7501 | Number 7501 lies in the box 7501 to 7700, which nobody opened yet.
            7701 | No box with number 7701 came in. The next one there is begins with 7901: look for the missing box, or say why its numbers are skipped.
            8001 | No box with number 8001 came in: the stock is used up, or the new box is not entered.
            """)
    void theTrayIsForetold(long next, String words) {
        assertThat(BOXES.foretold(next)).isEqualTo(words);
    }

    @Test
    void aMissingBoxIsSeenAndSheetsAreCounted() {
        assertThat(BOXES.gaps()).containsExactly(new StockBoxes.Gap(7701, 7900));
        assertThat(BOXES.left(7301)).isEqualTo(500);
        assertThat(BOXES.left(7401)).isEqualTo(400);
        assertThat(BOXES.left(7950)).isEqualTo(51);
        assertThat(BOXES.left(9000)).isZero();
        assertThat(new StockBoxes(List.of()).foretold(7001)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            -1 | 7800 | as it stands on the label
            7600 | 7800 | came in a box already
            7300 | 7301 | came in a box already
            7001 | 8500 | came in a box already
            8100 | 8050 | not below its first
            8400 | 8600 | not numbers of this series
            6900 | 7100 | not numbers of this series
            8001 | 900001 | Check the numbers you typed
            """)
    void rejectsABoxThatCannotHaveCome(long first, long last, String why) {
        assertThatThrownBy(() -> BOXES.mustTake(first, last, SERIES))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(why);
    }

    @Test
    void aBoxBetweenTheOthersComes() {
        BOXES.mustTake(7701, 7900, SERIES);
        BOXES.mustTake(8001, 8500, SERIES);
    }
}
