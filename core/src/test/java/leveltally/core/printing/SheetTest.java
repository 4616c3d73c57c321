package leveltally.core.printing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import leveltally.core.checks.NumberState;
import org.junit.jupiter.api.Test;

class SheetTest {
    private static final Sheet FRESH = new Sheet(41237, true, false, null, false);

    private static Sheet with(Answer answer, boolean posted) {
        return new Sheet(41237, true, false, answer, posted);
    }

    @Test
    void goodIsPrintedSpoiledIsSpoiledAndABlankOneKeepsItsNumber() {
        assertThat(FRESH.answered(Answer.GOOD, ""))
                .hasValue(new Sheet.Given(Answer.GOOD, "", Optional.of(NumberState.PRINTED)));
        assertThat(FRESH.answered(Answer.SPOILED, " smeared "))
                .hasValue(new Sheet.Given(Answer.SPOILED, "smeared", Optional.of(NumberState.SPOILED)));
        assertThat(FRESH.answered(Answer.BLANK, "")).hasValue(new Sheet.Given(Answer.BLANK, "", Optional.empty()));
    }

    @Test
    void onlyGoodIsCorrectedToSpoiledAndOnlyBeforePosting() {
        assertThat(with(Answer.GOOD, false).answered(Answer.GOOD, "")).isEmpty();
        assertThat(with(Answer.GOOD, false).answered(Answer.SPOILED, "torn")).isPresent();
        assertThatThrownBy(() -> with(Answer.GOOD, true).answered(Answer.SPOILED, "torn"))
                .hasMessageContaining("Check 41237 is posted. Void it");
        assertThatThrownBy(() -> with(Answer.SPOILED, false).answered(Answer.GOOD, ""))
                .hasMessageContaining("was answered already: spoiled");
        assertThatThrownBy(() -> with(Answer.GOOD, false).answered(Answer.BLANK, ""))
                .hasMessageContaining("was answered already: good");
    }

    @Test
    void aDamagedSheetPrintsAgainOnItsNumberOnlyWhereTheSeriesAllowsThatAndBeforePosting() {
        Sheet allowed = new Sheet(41237, true, true, null, false);
        assertThat(allowed.answered(Answer.AGAIN, " smeared "))
                .hasValue(new Sheet.Given(Answer.AGAIN, "smeared", Optional.empty()));
        assertThatThrownBy(() -> allowed.answered(Answer.AGAIN, " ")).hasMessageContaining("Say what happened");
        assertThatThrownBy(() -> FRESH.answered(Answer.AGAIN, "smeared"))
                .hasMessageContaining("prints no number a second time");
        assertThatThrownBy(() -> new Sheet(41237, true, true, null, true).answered(Answer.AGAIN, "smeared"))
                .hasMessageContaining("is posted");
        // whoever finds no paper for it gives the number up
        assertThat(new Sheet(41237, true, true, Answer.AGAIN, false).answered(Answer.SPOILED, "no stock"))
                .hasValue(new Sheet.Given(Answer.SPOILED, "no stock", Optional.of(NumberState.SPOILED)));
        assertThatThrownBy(() -> new Sheet(41237, true, true, Answer.AGAIN, false).answered(Answer.GOOD, ""))
                .hasMessageContaining("damaged, to be printed again");
    }

    @Test
    void rejectsAnAnswerBeforeThePrinterAndASpoiledSheetWithoutAReason() {
        assertThatThrownBy(() -> new Sheet(1, false, false, null, false).answered(Answer.GOOD, ""))
                .hasMessageContaining("not handed to the printer yet");
        assertThatThrownBy(() -> FRESH.answered(Answer.SPOILED, " ")).hasMessageContaining("Say what happened");
    }
}
