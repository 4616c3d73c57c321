package leveltally.core.proof;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.proof.LevelStrip.Bubble;
import leveltally.core.proof.LevelStrip.Step;
import leveltally.core.proof.LevelStrip.Tally;
import org.junit.jupiter.api.Test;

class LevelStripTest {
    private static LevelStrip strip(String... amounts) {
        List<Tally> tallies = new ArrayList<>();
        for (int i = 0; i < amounts.length; i++) {
            tallies.add(new Tally(Step.values()[i], 1, amounts[i] == null ? null : usd(amounts[i])));
        }
        return LevelStrip.of(tallies, List.of(0, 0, 0, 0));
    }

    @Test
    void oneHundredOverAndOneHundredShortIsNotLevel() {
        Tally lines = new Tally(Step.LINES, 2, usd("500"));
        Tally payments = new Tally(Step.PAYMENTS, 2, usd("500"));
        LevelStrip strip = LevelStrip.of(List.of(lines, payments), List.of(2));
        assertThat(strip.vials()).containsExactly(new LevelStrip.Vial(Bubble.UNEVEN, usd("0"), 2));
        assertThat(strip.isLevel()).isFalse();
    }

    @Test
    void agreesWhenEveryTallyDoes() {
        LevelStrip strip = strip("10", "10", "10", "10", "10");
        assertThat(strip.vials()).hasSize(4).allMatch(vial -> vial.bubble() == Bubble.LEVEL);
        assertThat(strip.isLevel()).isTrue();
    }

    @Test
    void saysHowFarTheRightIsFromTheLeft() {
        LevelStrip strip = strip("10", "10", "8.64", "12", null);
        assertThat(strip.vials().stream().map(LevelStrip.Vial::bubble))
                .containsExactly(Bubble.LEVEL, Bubble.SHORT, Bubble.OVER, Bubble.EMPTY);
        assertThat(strip.vials().get(1).difference()).isEqualTo(usd("-1.36"));
        assertThat(strip.isLevel()).isFalse();
    }

    @Test
    void whatIsNotReachedIsEmptyAndStillLevel() {
        assertThat(strip("10", "10", null, null, null).isLevel()).isTrue();
    }
}
