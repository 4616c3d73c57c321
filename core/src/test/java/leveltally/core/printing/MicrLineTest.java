package leveltally.core.printing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashSet;
import java.util.Set;
import leveltally.core.ledger.RoutingNumber;
import org.junit.jupiter.api.Test;

class MicrLineTest {
    private static final RoutingNumber ROUTING = new RoutingNumber("990044105");

    @Test
    void checkDigitOfTheRoutingNumber() {
        assertThat(new RoutingNumber("990073053").digits()).isEqualTo("990073053");
        assertThatThrownBy(() -> new RoutingNumber("990044104")).hasMessageContaining("check digit");
        assertThatThrownBy(() -> new RoutingNumber("12345")).hasMessageContaining("nine digits");
    }

    @Test
    void fillsThePatternOfTheAccount() {
        MicrLine line = MicrLine.of("C########C AT A KC", ROUTING, "004417720931", 41237);
        assertThat(line.text()).isEqualTo("C00041237C A990044105 A 004417720931C");
    }

    @Test
    void rejectsANumberTooLongForThePattern() {
        assertThatThrownBy(() -> MicrLine.of("C###C", ROUTING, "1", 41237)).hasMessageContaining("does not fit");
    }

    @Test
    void standsOnThePitchInsideTheClearBand() {
        Box.Bars bars = MicrLine.of("########", ROUTING, "1", 12345678).drawn(400, 252);
        double right =
                bars.bars().stream().mapToDouble(b -> b.x() + b.width()).max().orElseThrow();
        double left = bars.bars().stream().mapToDouble(Box.Bar::x).min().orElseThrow();
        assertThat(right).isLessThanOrEqualTo(400.0001);
        assertThat(left).isGreaterThan(400 - 8 * 9.0);
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
            double drawn = new MicrLine(String.valueOf(c))
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
