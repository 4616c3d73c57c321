package leveltally.core.terms;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PartPaymentTest {
    private static final Money NONE = Money.zero(USD);

    private static Discount left(Money amount, BigDecimal rate, Money settled, Money taken) {
        return Discount.after(amount, rate, null, settled, NONE, taken);
    }

    @ParameterizedTest
    @CsvSource({"1250.00, 2, 500.00, 510.20, 10.20, 739.80, 14.80", "333.33, 1.5, 100.00, 101.52, 1.52, 231.81, 3.48"})
    void earnsItsShareOfTheDiscount(
            String amount, String percent, String cash, String settles, String discount, String open, String left) {
        BigDecimal rate = new BigDecimal(percent).movePointLeft(2);
        Discount before = left(usd(amount), rate, NONE, NONE);
        PartPayment part = PartPayment.of(usd(cash), usd(amount), before.left(), before.discountableLeft(), rate);
        assertThat(part.settled()).isEqualTo(usd(settles));
        assertThat(part.discount()).isEqualTo(usd(discount));
        assertThat(usd(amount).minus(part.settled())).isEqualTo(usd(open));
        assertThat(left(usd(amount), rate, part.settled(), part.discount()).left())
                .isEqualTo(usd(left));
    }

    @Test
    void netOfAllSettlesAll() {
        BigDecimal rate = new BigDecimal("0.02");
        PartPayment part = PartPayment.of(usd("725.00"), usd("739.80"), usd("14.80"), usd("739.80"), rate);
        assertThat(part.settled()).isEqualTo(usd("739.80"));
    }

    @Test
    void rejectsMoreThanTheNetAndOffersIt() {
        BigDecimal rate = new BigDecimal("0.02");
        assertThatThrownBy(() -> PartPayment.of(usd("1225.01"), usd("1250"), usd("25"), usd("1250"), rate))
                .isInstanceOfSatisfying(
                        Refusal.class, refusal -> assertThat(refusal.sentence()).contains("Pay 1,225.00"));
    }

    @ParameterizedTest
    @CsvSource({"0", "-5.00"})
    void rejectsNothingAndLess(String cash) {
        assertThatThrownBy(() -> PartPayment.of(usd(cash), usd("10"), NONE, usd("10"), BigDecimal.ZERO))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void lapsedDiscountSettlesTheCash() {
        PartPayment part = PartPayment.of(usd("500"), usd("1250"), NONE, usd("1250"), new BigDecimal("0.02"));
        assertThat(part.settled()).isEqualTo(usd("500"));
    }

    @Test
    void freightIsPaidAtParAfterTheDiscountablePart() {
        BigDecimal rate = new BigDecimal("0.02");
        // 1,200.00 discountable (24.00), 50.00 freight: 1,200.00 cash is 1,176.00 net of the part and 24.00 freight
        PartPayment part = PartPayment.of(usd("1200.00"), usd("1250.00"), usd("24.00"), usd("1200.00"), rate);
        assertThat(part.discount()).isEqualTo(usd("24.00"));
        assertThat(part.settled()).isEqualTo(usd("1224.00"));
    }

    /** However an invoice is paid off in parts, it ends at zero open and never earns more than its full discount. */
    @Test
    void manyPartsNeverOverrunTheDiscount() {
        Random random = new Random(7);
        for (int round = 0; round < 2_000; round++) {
            Money amount = Money.ofMinor(1 + random.nextInt(500_000), USD);
            Money discountable = Money.ofMinor(random.nextLong(amount.minor() + 1), USD);
            BigDecimal rate = BigDecimal.valueOf(random.nextInt(500), 4);
            Money open = amount;
            Money taken = NONE;
            for (int step = 0; open.isPositive() && step < 60; step++) {
                Discount now = left(discountable, rate, amount.minus(open), taken);
                Money net = open.minus(now.left());
                Money cash = step > 50 ? net : Money.ofMinor(1 + random.nextLong(Math.max(1, net.minor())), USD);
                if (!cash.isPositive()) {
                    break;
                }
                PartPayment part = PartPayment.of(cash.min(net), open, now.left(), now.discountableLeft(), rate);
                assertThat(part.discount().isNegative()).isFalse();
                open = open.minus(part.settled());
                taken = taken.plus(part.discount());
                assertThat(open.isNegative()).isFalse();
            }
            assertThat(taken).isLessThanOrEqualTo(Discount.full(discountable, rate));
        }
    }

    @Test
    void tenDollarsInQuartersNeverGoesBelowZero() {
        BigDecimal rate = new BigDecimal("0.02");
        Money open = usd("10.00");
        Money taken = NONE;
        while (open.isPositive()) {
            Discount now = left(usd("10.00"), rate, usd("10.00").minus(open), taken);
            Money cash = usd("0.25").min(open.minus(now.left()));
            PartPayment part = PartPayment.of(cash, open, now.left(), now.discountableLeft(), rate);
            open = open.minus(part.settled());
            taken = taken.plus(part.discount());
        }
        assertThat(taken).isLessThanOrEqualTo(usd("0.20"));
        assertThat(open).isEqualTo(NONE);
    }
}
