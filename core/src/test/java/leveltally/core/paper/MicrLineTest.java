package leveltally.core.paper;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MicrLineTest {
    private static final RoutingNumber ROUTING = new RoutingNumber("990044105");

    @Test
    void checkDigitOfTheRoutingNumber() {
        assertThat(new RoutingNumber("990073053").digits()).isEqualTo("990073053");
        assertThatThrownBy(() -> new RoutingNumber("990044104"))
                .hasMessageContaining("the last of them checks the others");
        assertThatThrownBy(() -> new RoutingNumber("12345")).hasMessageContaining("nine digits");
    }

    private static MicrLine line(String account, long number) {
        return MicrLine.of(MicrPattern.read("C########C|KC"), ROUTING, account, number);
    }

    private static String at(MicrLine line, int left, int right) {
        StringBuilder text = new StringBuilder();
        for (int position = left; position >= right; position--) {
            text.append(line.at(position));
        }
        return text.toString();
    }

    /** Positions counted from the right edge: nothing of one field moves another. */
    @ParameterizedTest
    @ValueSource(strings = {"1", "004417720931", "12345678901234567"})
    void everyFieldStandsInItsPositionsWhateverTheAccount(String account) {
        MicrLine line = line(account, 41237);
        assertThat(at(line, 13, 1)).isBlank();
        assertThat(at(line, 31, 14)).isEqualTo(" ".repeat(17 - account.length()) + account + "C");
        assertThat(line.at(32)).isEqualTo(' ');
        assertThat(at(line, 43, 33)).isEqualTo("A990044105A");
        assertThat(line.at(44)).isEqualTo(' ');
        assertThat(at(line, 54, 45)).isEqualTo("C00041237C");
        assertThat(at(line, 65, 55)).isBlank();
    }

    @Test
    void rejectsWhatDoesNotFitItsField() {
        assertThatThrownBy(() -> MicrLine.of(MicrPattern.read("C###C|KC"), ROUTING, "1", 41237))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not fit the 3 places");
        assertThatThrownBy(() -> line("123456789012345678", 1))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("18 positions");
        assertThatThrownBy(() -> MicrPattern.read("C###C AT A KC")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> MicrPattern.read("C###C|A KC")).isInstanceOf(IllegalArgumentException.class);
    }

    /** Reads the position of every character back from the ink: its right side is 5/16 in + (n − 1)/8 in from the edge. */
    @Test
    void theInkOfEveryCharacterStandsAtItsPosition() {
        MicrLine line = line("004417720931", 41237);
        Box.Bars bars = line.drawn(612, 252);
        for (int position = 1; position <= 65; position++) {
            double right = 612 - 5.0 / 16 * 72 - (position - 1) * 9.0;
            List<Box.Bar> own = bars.bars().stream()
                    .filter(bar -> bar.x() + bar.width() > right - 9 + 0.01 && bar.x() + bar.width() <= right + 1e-9)
                    .toList();
            String rows = line.at(position) == ' ' ? "" : String.join("", MicrGlyphs.rows(line.at(position)));
            double ink = own.stream().mapToDouble(b -> b.width() * b.height()).sum();
            assertThat(ink)
                    .as("position %d", position)
                    .isCloseTo(
                            rows.chars().filter(c -> c == '#').count() * MicrLine.CELL * MicrLine.CELL, within(1e-6));
        }
        assertThat(bars.bars()).allSatisfy(bar -> {
            assertThat(bar.y() + bar.height()).isLessThanOrEqualTo(252 - 0.1875 * 72 + 1e-9);
            assertThat(bar.y()).isGreaterThanOrEqualTo(252 - 0.1875 * 72 - 0.117 * 72 - 1e-9);
        });
    }

    /** The ink of the bars is exactly the ink of the grid, and every character differs from every other. */
    @Test
    void drawsEveryCharacterWhole() {
        Set<String> seen = new HashSet<>();
        for (char c : "0123456789ABCD".toCharArray()) {
            double grid = MicrGlyphs.rows(c).stream()
                    .mapToLong(row -> row.chars().filter(x -> x == '#').count())
                    .sum();
            double drawn = new MicrLine(" ".repeat(64) + c)
                    .drawn(100, 100).bars().stream()
                            .mapToDouble(b -> b.width() * b.height())
                            .sum();
            assertThat(drawn).isCloseTo(grid * MicrLine.CELL * MicrLine.CELL, within(1e-6));
            assertThat(MicrGlyphs.rows(c))
                    .hasSize(9)
                    .allSatisfy(row -> assertThat(row).hasSize(7));
            assertThat(seen.add(String.join("", MicrGlyphs.rows(c)))).isTrue();
        }
    }
}
