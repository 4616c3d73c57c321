package leveltally.core.vendors;

import static org.assertj.core.api.Assertions.assertThat;

import leveltally.core.vendors.BankDetails.Kind;
import leveltally.core.vendors.Reach.Missing;
import org.junit.jupiter.api.Test;

class ReachTest {
    @Test
    void eachWayNamesWhatIsMissing() {
        Reach paperOnly = new Reach(true, null, true);
        assertThat(paperOnly.missingFor(PaymentMethod.CHECK)).isEmpty();
        assertThat(paperOnly.missingFor(PaymentMethod.CREDIT_TRANSFER)).contains(Missing.BANK_DETAILS);
        assertThat(paperOnly.missingFor(PaymentMethod.ACH)).contains(Missing.BANK_DETAILS);
        assertThat(paperOnly.missingFor(PaymentMethod.CARD)).isEmpty();
        Reach bankOnly = new Reach(false, Kind.ROUTED, true);
        assertThat(bankOnly.missingFor(PaymentMethod.CREDIT_TRANSFER)).isEmpty();
        assertThat(bankOnly.missingFor(PaymentMethod.ACH)).isEmpty();
        assertThat(bankOnly.missingFor(PaymentMethod.CHECK)).contains(Missing.ADDRESS);
    }

    @Test
    void achNeedsARoutingNumberAndTwoPeople() {
        assertThat(new Reach(true, Kind.IBAN, true).missingFor(PaymentMethod.ACH))
                .contains(Missing.ROUTING_NUMBER);
        assertThat(new Reach(true, Kind.IBAN, true).missingFor(PaymentMethod.CREDIT_TRANSFER))
                .isEmpty();
        assertThat(new Reach(true, Kind.ROUTED, false).missingFor(PaymentMethod.ACH))
                .contains(Missing.CONFIRMATION);
        assertThat(new Reach(true, Kind.IBAN, false).missingFor(PaymentMethod.WIRE))
                .contains(Missing.CONFIRMATION);
    }
}
