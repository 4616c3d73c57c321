package leveltally.core.outside;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import leveltally.core.payments.PaymentId;
import org.junit.jupiter.api.Test;

class CardLinesTest {
    private static CardLines.Payment payment(long id, String number, String amount) {
        return new CardLines.Payment(new PaymentId(id), number, usd(amount));
    }

    private static final List<CardLines.Payment> PAYMENTS = List.of(
            payment(1, "88213-01", "212.75"),
            payment(2, "88213-02", "40.00"),
            payment(3, "88213-03", "40.00"),
            payment(4, "88213-04", "1250.00"));

    @Test
    void linesNameTheirPaymentByNumberOrByAnAmountOnlyOneHas() {
        CardLines.Read read = CardLines.read("""
                03 Nov  KITTIWAKE UNIFORMS        212.75
                05 Nov; 88213-03; EBB TIDE; 40.00

                09 Nov  SOMEBODY                  1,250.00
                """, USD, PAYMENTS);
        assertThat(read.matched()).extracting(PaymentId::value).containsExactlyInAnyOrder(1L, 3L, 4L);
        assertThat(read.others()).isEmpty();
    }

    @Test
    void anAmountThatIsLeftToOneFitsIt() {
        // the numbered line takes its own, whatever stands above it
        CardLines.Read read = CardLines.read("EBB TIDE 40.00\n88213-02 EBB TIDE 40.00", USD, PAYMENTS);
        assertThat(read.matched()).extracting(PaymentId::value).containsExactlyInAnyOrder(2L, 3L);
    }

    /** What stands after the amount may be what is owed by then; before it, what a shop abroad charged. */
    @Test
    void anAmountMayBeFollowedByABalance() {
        CardLines.Read read = CardLines.read(
                "KITTIWAKE EUR 40.00 USD 212.75 3,000.00\n88213-02 EBB TIDE 40.00 3,040.00\nFEE 95.00 3,135.00",
                USD,
                PAYMENTS);
        assertThat(read.matched()).extracting(PaymentId::value).containsExactlyInAnyOrder(1L, 2L);
        assertThat(read.others())
                .extracting(CardLines.Other::why)
                .containsExactly("no payment of 95.00 or 3,135.00 was recorded, or it stands on a statement already");
    }

    @Test
    void whatFitsNothingOrSeveralIsToldLineByLine() {
        CardLines.Read read = CardLines.read(
                "EBB TIDE 40.00\n88213-01 KITTIWAKE 221.75\nYEARLY FEE 95.00\nThank you\n88213-04 X 1250.00\n88213-04 X 1250.00",
                USD,
                PAYMENTS);
        assertThat(read.matched()).extracting(PaymentId::value).containsExactly(4L);
        assertThat(read.others())
                .extracting(CardLines.Other::why)
                .containsExactlyInAnyOrder(
                        "it fits 88213-02 and 88213-03",
                        "88213-01 is 212.75 here, and 221.75 there",
                        "no payment of 95.00 was recorded, or it stands on a statement already",
                        "no amount was found in it",
                        "its payment stands in a line above already");
    }
}
