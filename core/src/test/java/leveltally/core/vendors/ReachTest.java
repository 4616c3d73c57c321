package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class ReachTest {
    @Test
    void aCheckNeedsAnAddressAndATransferBankDetails() {
        Reach paperOnly = new Reach(true, false);
        assertThat(paperOnly.missingFor(PaymentMethod.CHECK)).isEmpty();
        assertThat(paperOnly.missingFor(PaymentMethod.CREDIT_TRANSFER)).contains(Reach.Missing.BANK_DETAILS);
        Reach bankOnly = new Reach(false, true);
        assertThat(bankOnly.missingFor(PaymentMethod.CREDIT_TRANSFER)).isEmpty();
        assertThat(bankOnly.missingFor(PaymentMethod.CHECK)).contains(Reach.Missing.ADDRESS);
    }
}
