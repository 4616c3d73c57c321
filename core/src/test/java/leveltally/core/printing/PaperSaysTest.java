package leveltally.core.printing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.LongStream;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;

class PaperSaysTest {
    private static List<PaperSays.Printed> sheets(long from, long to) {
        return LongStream.rangeClosed(from, to)
                .mapToObj(number -> new PaperSays.Printed(number, null, true))
                .toList();
    }

    @Test
    void theRestOfARunHasTheNumbersOnItsPaper() {
        PaperSays paper = PaperSays.of(sheets(103, 105), true, 106, 104);
        assertThat(paper).isEqualTo(new PaperSays(103, 104, 3));
        assertThat(paper.passedOver()).isEqualTo(1);
    }

    @Test
    void rejectsWhatCannotBeRenumbered() {
        assertThatThrownBy(() -> PaperSays.of(sheets(103, 105), false, 106, 104))
                .hasMessageContaining("not handed to the printer yet");
        assertThatThrownBy(() -> PaperSays.of(sheets(103, 105), true, 106, 103))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("a number above 103");
        assertThatThrownBy(() -> PaperSays.of(sheets(103, 105), true, 106, 604)).hasMessageContaining("501 ahead");
        assertThatThrownBy(() -> PaperSays.of(sheets(103, 105), true, 107, 104))
                .hasMessageContaining("Numbers after this run were taken since");
        var answered = List.of(new PaperSays.Printed(103, null, true), new PaperSays.Printed(104, Answer.GOOD, true));
        assertThatThrownBy(() -> PaperSays.of(answered, true, 105, 104))
                .hasMessageContaining("Sheet 104 of the same run is answered");
        var takenOut = List.of(new PaperSays.Printed(103, null, false));
        assertThatThrownBy(() -> PaperSays.of(takenOut, true, 104, 104)).hasMessageContaining("taken out already");
    }

    @Test
    void numbersAreWrittenAsRanges() {
        assertThat(Ranges.inWords(List.of(1L, 2L, 3L, 7L, 9L, 10L))).isEqualTo("1-3, 7, 9-10");
        assertThat(Ranges.inWords(List.of(5L))).isEqualTo("5");
        assertThat(Ranges.inWords(List.of())).isEmpty();
    }
}
