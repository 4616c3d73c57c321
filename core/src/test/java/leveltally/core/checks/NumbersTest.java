package leveltally.core.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentState;
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

    @ParameterizedTest
    @EnumSource
    void nothingFollowsASpoiledNumber(NumberState next) {
        assertThatThrownBy(() -> NumberState.SPOILED.to(next, 1)).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @EnumSource
    void onlyATakenPrintedOrWrittenNumberCarriesItsPayment(NumberState state) {
        if (state == NumberState.TAKEN || state == NumberState.PRINTED || state == NumberState.WRITTEN) {
            state.mustCarry(1);
        } else {
            assertThatThrownBy(() -> state.mustCarry(41670))
                    .hasMessageContaining("Number 41670 is " + state.words() + " and carries no payment");
        }
    }

    @Test
    void theRegisterTellsNumbersAndPaymentsApart() {
        long names = NumberState.values().length + PaymentState.values().length;
        assertThat(Stream.concat(Arrays.stream(NumberState.values()), Arrays.stream(PaymentState.values()))
                        .map(Enum::name)
                        .distinct())
                .hasSize((int) names);
        assertThat(Standing.named("SPOILED")).contains(Standing.of(NumberState.SPOILED));
        assertThat(Standing.named("CLEARED")).contains(Standing.of(PaymentState.CLEARED));
        assertThat(Standing.named("lost")).isEmpty();
    }
}
