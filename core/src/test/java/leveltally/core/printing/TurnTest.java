package leveltally.core.printing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import leveltally.core.batches.BatchId;
import leveltally.core.people.PersonId;
import org.junit.jupiter.api.Test;

class TurnTest {
    private static final Instant DEED = Instant.parse("2026-11-12T09:00:00Z");
    private static final PersonId INES = new PersonId(1);
    private static final PersonId TOMAS = new PersonId(2);
    private static final Turn TURN = new Turn(7, new BatchId(3), INES, DEED, DEED);

    private static void yields(PersonId to, String reason, Duration after) {
        TURN.mustYield(to, "Ines", "Operations", reason, DEED.plus(after));
    }

    @Test
    void isIdleFromTheFifteenthMinuteOn() {
        assertThat(TURN.isIdle(DEED.plus(Duration.ofMinutes(15).minusNanos(1)))).isFalse();
        assertThat(TURN.isIdle(DEED.plus(Duration.ofMinutes(15)))).isTrue();
    }

    @Test
    void isTakenOverOnlyWhenIdleAndForAReason() {
        assertThatCode(() -> yields(INES, "", Duration.ZERO)).doesNotThrowAnyException();
        assertThatThrownBy(() -> yields(TOMAS, "she left", Duration.ofMinutes(14)))
                .hasMessageContaining("Ines has the turn to print from Operations")
                .hasMessageContaining("15 minutes");
        assertThatThrownBy(() -> yields(TOMAS, " ", Duration.ofMinutes(15))).hasMessageContaining("Say why");
        assertThatCode(() -> yields(TOMAS, "she left", Duration.ofMinutes(15))).doesNotThrowAnyException();
    }
}
