package leveltally.core.printing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ByNumberTest {
    private static final Set<Long> WAITING =
            LongStream.rangeClosed(41742, 41770).boxed().collect(Collectors.toSet());

    @Test
    void aTrayIsAnsweredAsItIsRead() {
        List<ByNumber.Said> said = ByNumber.said(
                WAITING,
                Map.of(
                        Answer.GOOD, "41742-41760, 41763",
                        Answer.SPOILED, " 41761 ",
                        Answer.BLANK, "41762; 41764 to 41770"));
        assertThat(said).hasSize(29);
        assertThat(said.get(0)).isEqualTo(new ByNumber.Said(41742, Answer.GOOD));
        assertThat(said)
                .contains(
                        new ByNumber.Said(41760, Answer.GOOD),
                        new ByNumber.Said(41761, Answer.SPOILED),
                        new ByNumber.Said(41762, Answer.BLANK),
                        new ByNumber.Said(41763, Answer.GOOD),
                        new ByNumber.Said(41770, Answer.BLANK));
    }

    @Test
    void aNumberIsNamedOnceAndWaits() {
        assertThatThrownBy(() -> ByNumber.said(WAITING, Map.of(Answer.GOOD, "41742-41750", Answer.BLANK, "41750")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Number 41750 is named as good, too");
        assertThatThrownBy(() -> ByNumber.said(WAITING, Map.of(Answer.GOOD, "41741-41742")))
                .hasMessageContaining("No sheet with the number 41741 waits");
        assertThatThrownBy(() -> ByNumber.said(WAITING, Map.of(Answer.GOOD, " ", Answer.BLANK, "")))
                .hasMessageContaining("at least one number");
    }

    /** Each range is short, all of them together would fill the memory. */
    @Test
    void noTextNamesMoreNumbersThanARunHasSheets() {
        assertThat(ByNumber.read("1-40000", "good")).hasSize(40_000);
        assertThatThrownBy(() -> ByNumber.read("1-40000,50000-90000", "good"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("more than 50000 numbers");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"41742..41750", "all", "41750-41742", "-5", "41742-", "1e5", "1-999999999999", "9999999999999"})
    void whatIsNoNumberIsRefusedByItsWords(String typed) {
        assertThatThrownBy(() -> ByNumber.read(typed, "good"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(typed);
    }
}
