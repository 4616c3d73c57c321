package leveltally.core.selection;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CashLineTest {
    private static CashLine.Waiting claim(String amount, String discount) {
        return new CashLine.Waiting(usd(amount), usd(discount), false, false, false);
    }

    private static final List<CashLine.Waiting> FIVE = List.of(
            claim("4200", "0"),
            claim("3900", "79.59"),
            claim("2500", "51.02"),
            claim("1700", "0"),
            claim("3600", "73.47"));

    private static String letters(CashLine line) {
        StringBuilder letters = new StringBuilder();
        for (int i = 0; i < line.taken().length; i++) {
            if (line.taken()[i] || i == line.part()) {
                letters.append((char) ('A' + i));
            }
        }
        return letters.toString();
    }

    @ParameterizedTest
    @CsvSource({
        "STOP_AT_THE_LINE, AB, 1900.00",
        "PASS_OVER, ABD, 200.00",
        "PART_PAY, ABC, 1900.00",
        "MOST_DISCOUNT, BCE, 0.00"
    })
    void fourWaysToSpendTenThousand(CashWay way, String takes, String left) {
        CashLine line = CashLine.choose(way, FIVE, usd("10000"), usd("0"));
        assertThat(letters(line)).isEqualTo(takes);
        assertThat(line.left()).isEqualTo(usd(left));
        assertThat(line.error()).isEqualTo(usd("0"));
        if (way == CashWay.MOST_DISCOUNT) {
            Money saved = Money.zero(USD);
            for (int i = 0; i < FIVE.size(); i++) {
                saved = line.taken()[i] ? saved.plus(FIVE.get(i).discount()) : saved;
            }
            assertThat(saved).isEqualTo(usd("204.08"));
        }
    }

    @Test
    void partPaymentSkipsOwnChecksAndAmountsUnderTheSmallestPayment() {
        var own = new CashLine.Waiting(usd("50"), usd("0"), false, false, true);
        CashLine line = CashLine.choose(CashWay.PART_PAY, List.of(own, claim("60", "0")), usd("40"), usd("10"));
        assertThat(line.part()).isEqualTo(1);
        assertThat(CashLine.choose(CashWay.PART_PAY, List.of(own, claim("60", "0")), usd("40"), usd("41"))
                        .part())
                .isEqualTo(-1);
    }

    @Test
    void whatIsLateGoesFirstAndWhatIsTakenByHandAlways() {
        var late = new CashLine.Waiting(usd("70"), usd("0"), true, false, false);
        var byHand = new CashLine.Waiting(usd("90"), usd("0"), false, true, false);
        List<CashLine.Waiting> queue = List.of(claim("80", "9"), late, claim("30", "1"));
        assertThat(letters(CashLine.choose(CashWay.MOST_DISCOUNT, queue, usd("100"), usd("0"))))
                .isEqualTo("BC");
        CashLine over = CashLine.choose(CashWay.STOP_AT_THE_LINE, List.of(late, byHand), usd("50"), usd("0"));
        assertThat(letters(over)).isEqualTo("B");
        assertThat(over.left()).isEqualTo(usd("-40"));
    }

    /** Never wrong against every possible choice; among equals more cash is used, then the earlier claims. */
    @Test
    void fewClaimsAreChosenAsByTryingThemAll() {
        Random random = new Random(5);
        for (int round = 0; round < 400; round++) {
            int n = 1 + random.nextInt(13);
            long[] cash = random.longs(n, 1, 60).toArray();
            long[] discount = random.longs(n, 0, 6).toArray();
            long limit = random.nextInt(250);
            long bestDiscount = -1;
            long bestCash = -1;
            int bestSet = 0;
            for (int set = 0; set < 1 << n; set++) {
                long c = 0;
                long d = 0;
                for (int i = 0; i < n; i++) {
                    if ((set >> (n - 1 - i) & 1) == 1) {
                        c += cash[i];
                        d += discount[i];
                    }
                }
                boolean better =
                        d > bestDiscount || d == bestDiscount && (c > bestCash || c == bestCash && set > bestSet);
                if (c <= limit && better) {
                    bestDiscount = d;
                    bestCash = c;
                    bestSet = set;
                }
            }
            BestChoice choice = BestChoice.of(cash, discount, limit);
            int set = 0;
            for (int i = 0; i < n; i++) {
                set |= choice.taken()[i] ? 1 << (n - 1 - i) : 0;
            }
            assertThat(set).as("round %d", round).isEqualTo(bestSet);
            assertThat(choice.error()).isZero();
        }
    }

    /** Many claims against a table over every amount: exact, or within the error it states. */
    @Test
    void manyClaimsAreExactOrSayHowFarTheyMayBeOff() {
        Random random = new Random(6);
        for (int round = 0; round < 60; round++) {
            int n = 41 + random.nextInt(160);
            boolean alike = round % 3 == 0;
            long[] cash = random.longs(n, 1, 90).toArray();
            long[] discount = new long[n];
            for (int i = 0; i < n; i++) {
                discount[i] = alike ? cash[i] / 10 : random.nextInt(9);
            }
            int limit = 50 + random.nextInt(2_500);
            long[] table = new long[limit + 1];
            for (int i = 0; i < n; i++) {
                for (int room = limit; room >= cash[i]; room--) {
                    table[room] = Math.max(table[room], table[(int) (room - cash[i])] + discount[i]);
                }
            }
            BestChoice choice = BestChoice.of(cash, discount, limit);
            long spent = 0;
            long saved = 0;
            for (int i = 0; i < n; i++) {
                spent += choice.taken()[i] ? cash[i] : 0;
                saved += choice.taken()[i] ? discount[i] : 0;
            }
            assertThat(spent).isLessThanOrEqualTo(limit);
            assertThat(saved).isLessThanOrEqualTo(table[limit]);
            assertThat(saved + choice.error()).isGreaterThanOrEqualTo(table[limit]);
        }
    }

    /** Ties go by the order, however many claims there are and whatever equal sums are made of. */
    @ParameterizedTest
    @ValueSource(ints = {6, 60, 900})
    void tiesOfTheMostDiscountFollowTheOrder(int count) {
        long[] cash = new long[count];
        long[] discount = new long[count];
        Arrays.fill(cash, 1_000);
        Arrays.fill(discount, 20);
        BestChoice choice = BestChoice.of(cash, discount, 1_000L * (count / 3));
        assertThat(choice.error()).isZero();
        for (int i = 0; i < count; i++) {
            assertThat(choice.taken()[i]).as("claim %d of %d", i, count).isEqualTo(i < count / 3);
        }
    }

    @Test
    void aTieOfOneAgainstTwoFollowsTheOrderAboveFortyClaims() {
        long[] cash = new long[45];
        long[] discount = new long[45];
        Arrays.fill(cash, 100_000);
        cash[3] = 2_000;
        discount[3] = 40;
        cash[7] = 1_000;
        cash[9] = 1_000;
        discount[7] = 20;
        discount[9] = 20;
        assertThat(BestChoice.of(cash, discount, 2_000).taken()[3]).isTrue();
    }

    @Test
    void theFourWaysOfASelectionStandBesideEachOther() {
        List<CashLine.Waiting> queue = new ArrayList<>(FIVE);
        Money limit = usd("10000");
        assertThat(List.of(CashWay.values()).stream()
                        .map(way -> limit.minus(CashLine.choose(way, queue, limit, Money.zero(USD))
                                        .left())
                                .toString()))
                .containsExactly("8,100.00", "9,800.00", "8,100.00", "10,000.00");
    }
}
