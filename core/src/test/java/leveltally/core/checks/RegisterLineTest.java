package leveltally.core.checks;

import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import leveltally.core.payments.PaymentState;
import org.junit.jupiter.api.Test;

class RegisterLineTest {
    private static final LocalDate CHECK = day("2026-03-02");

    private static RegisterLine line(Standing standing, String explanation, Long paidBy) {
        return new RegisterLine(standing, CHECK, day("2026-03-09"), explanation, paidBy, null);
    }

    @Test
    void aCheckIsStaleOnceItIsOutstandingForMoreThanHalfAYear() {
        RegisterLine outstanding = line(Standing.of(PaymentState.OUTSTANDING), "", null);
        assertThat(outstanding.isStale(CHECK.plusDays(180), 180)).isFalse();
        assertThat(outstanding.then(CHECK.plusDays(180), 180)).isEmpty();
        assertThat(outstanding.isStale(CHECK.plusDays(181), 180)).isTrue();
        assertThat(outstanding.then(CHECK.plusDays(181), 180)).isEqualTo("181 days, stale");
        assertThat(line(Standing.of(PaymentState.CLEARED), "", null).isStale(CHECK.plusYears(3), 180))
                .isFalse();
    }

    @Test
    void eachStateSaysWhatBecameOfIt() {
        LocalDate today = day("2026-03-20");
        assertThat(line(Standing.of(PaymentState.CLEARED), "", null).then(today, 180))
                .isEqualTo("bank, Mon 9 Mar 2026");
        assertThat(line(Standing.of(NumberState.SPOILED), "smeared", 41237L).then(today, 180))
                .isEqualTo("smeared; paid by 41237");
        assertThat(line(Standing.of(NumberState.SPOILED), "torn", null).then(today, 180))
                .isEqualTo("torn");
        assertThat(line(Standing.of(NumberState.TAKEN), "taken for printing", null)
                        .then(today, 180))
                .isEqualTo("not answered yet");
        assertThat(line(Standing.of(NumberState.PRINTED), "", null).then(today, 180))
                .isEqualTo("good, not posted yet");
        assertThat(line(Standing.of(PaymentState.VOIDED), "lost in the mail", null)
                        .then(today, 180))
                .isEqualTo("lost in the mail");
    }

    @Test
    void whatCarriesNoPaymentStandsForNoAmount() {
        assertThat(line(Standing.of(NumberState.SPOILED), "", null).pays()).isFalse();
        assertThat(line(Standing.of(NumberState.UNACCOUNTED), "", null).pays()).isFalse();
        assertThat(line(Standing.of(PaymentState.VOIDED), "", null).pays()).isTrue();
    }
}
