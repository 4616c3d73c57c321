package leveltally.core.payments;

import static leveltally.core.payments.PaymentState.CLEARED;
import static leveltally.core.payments.PaymentState.OUTSTANDING;
import static leveltally.core.payments.PaymentState.PREPARED;
import static leveltally.core.payments.PaymentState.REVERSED;
import static leveltally.core.payments.PaymentState.STOPPED;
import static leveltally.core.payments.PaymentState.TAKEN_OUT;
import static leveltally.core.payments.PaymentState.VOIDED;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.EnumSet;
import java.util.Set;
import leveltally.core.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class PaymentStateTest {
    @Test
    void aClearedCheckIsNotVoidedBeforeItsClearingIsTakenBack() {
        assertThatThrownBy(() -> CLEARED.to(VOIDED, "Check 1"))
                .isInstanceOf(Refusal.class)
                .hasMessage("Check 1 is cleared, so it cannot become voided. Look at its history in the register.");
        assertThat(CLEARED.to(OUTSTANDING, "Check 1").to(VOIDED, "Check 1")).isEqualTo(VOIDED);
    }

    @Test
    void aStoppedOneIsLiftedOrVoided() {
        assertThat(STOPPED.next()).containsExactlyInAnyOrder(OUTSTANDING, VOIDED);
    }

    @ParameterizedTest
    @EnumSource
    void nothingFollowsWhatIsUndoneOrTakenOut(PaymentState next) {
        for (PaymentState last : Set.of(VOIDED, REVERSED, TAKEN_OUT)) {
            assertThatThrownBy(() -> last.to(next, "It")).isInstanceOf(Refusal.class);
        }
    }

    /** Once in the ledger a payment stays there until it is undone, and nothing returns to before it was posted. */
    @Test
    void theLedgerIsLeftByUndoingOnly() {
        for (PaymentState state : PaymentState.values()) {
            if (state.isInTheLedger()) {
                assertThat(state.next().stream().filter(next -> !next.isInTheLedger()))
                        .isSubsetOf(VOIDED, REVERSED)
                        .isNotEmpty();
            }
        }
        assertThat(PREPARED.next()).containsExactlyInAnyOrder(OUTSTANDING, TAKEN_OUT);
    }

    @Test
    void everyStateIsReached() {
        Set<PaymentState> seen = EnumSet.of(PREPARED);
        Deque<PaymentState> open = new ArrayDeque<>(seen);
        while (!open.isEmpty()) {
            for (PaymentState next : open.pop().next()) {
                if (seen.add(next)) {
                    open.push(next);
                }
            }
        }
        assertThat(seen).containsExactlyElementsOf(Arrays.asList(PaymentState.values()));
    }
}
