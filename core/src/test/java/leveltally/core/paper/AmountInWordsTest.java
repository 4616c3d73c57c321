package leveltally.core.paper;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AmountInWordsTest {
    @ParameterizedTest
    @CsvSource({
        "1225.00, One thousand two hundred twenty-five and 00/100",
        "1000000.01, One million and 01/100",
        "0.07, Zero and 07/100",
        "19.99, Nineteen and 99/100"
    })
    void spellsTheWholePart(String amount, String words) {
        assertThat(AmountInWords.of(usd(amount), "")).isEqualTo(words);
        assertThat(AmountInWords.of(usd(amount), "dollars")).isEqualTo(words + " dollars");
    }

    @ParameterizedTest
    @ValueSource(strings = {"0", "-1.00"})
    void rejectsWhatNeverReachesPaper(String amount) {
        assertThatThrownBy(() -> AmountInWords.of(usd(amount), "dollars")).isInstanceOf(Refusal.class);
    }
}
