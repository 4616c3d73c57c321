package leveltally.core.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class NumbersTest {
    @Test
    void theNextNumberSkipsNothing() {
        assertThat(Tray.confirm(41245, 41245, "")).isEqualTo(new Tray(41245, 0));
    }

    @Test
    void aheadSkipsWithAReason() {
        assertThat(Tray.confirm(41245, 41248, "packet was torn")).isEqualTo(new Tray(41248, 3));
        assertThatThrownBy(() -> Tray.confirm(41245, 41248, " ")).hasMessageContaining("41245 to 41247");
    }

    @Test
    void rejectsAUsedNumberAndASlipOfTheFinger() {
        assertThatThrownBy(() -> Tray.confirm(41245, 41244, "x")).hasMessageContaining("used already");
        assertThatThrownBy(() -> Tray.confirm(41245, 412450, "x")).hasMessageContaining("more than the 500");
    }

    @Test
    void aClearedCheckIsNotVoidedBeforeItsClearingIsTakenBack() {
        assertThatThrownBy(() -> NumberState.CLEARED.to(NumberState.VOIDED, 1)).isInstanceOf(Refusal.class);
        assertThat(NumberState.CLEARED.to(NumberState.OUTSTANDING, 1).to(NumberState.VOIDED, 1))
                .isEqualTo(NumberState.VOIDED);
    }

    @ParameterizedTest
    @EnumSource
    void nothingFollowsAVoidedOrSpoiledNumber(NumberState next) {
        assertThatThrownBy(() -> NumberState.VOIDED.to(next, 1)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> NumberState.SPOILED.to(next, 1)).isInstanceOf(Refusal.class);
    }
}
