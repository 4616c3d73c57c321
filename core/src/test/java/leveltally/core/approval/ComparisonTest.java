package leveltally.core.approval;

import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import leveltally.core.approval.Comparison.Sent;
import leveltally.core.approval.Comparison.Since;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

/** What stands out after a return, and in which order payments deserve a look. */
class ComparisonTest {
    private static Sent sent(long claim, long vendor, String amount, int content) {
        ClaimDigest digest = new ClaimDigest(String.format("%064x", content));
        return new Sent(new ClaimId(claim), new VendorId(vendor), "Vendor " + vendor, usd(amount), digest);
    }

    private static Since since(Comparison comparison, long claim) {
        return comparison.now().get(new ClaimId(claim)).since();
    }

    @Test
    void onlyWhatChangedStandsOut() {
        List<Sent> before = List.of(sent(1, 1, "10", 1), sent(2, 2, "20", 2), sent(3, 3, "30", 3));
        Comparison now = Comparison.of(before, List.of(sent(1, 1, "10", 1), sent(2, 2, "25", 22), sent(4, 4, "40", 4)));
        assertThat(since(now, 1)).isEqualTo(Since.SAME);
        assertThat(since(now, 2)).isEqualTo(Since.CHANGED);
        assertThat(now.now().get(new ClaimId(2)).was()).isEqualTo(usd("20"));
        assertThat(since(now, 4)).isEqualTo(Since.NEW);
        assertThat(now.gone()).containsExactly(before.get(2));
    }

    @Test
    void aClaimMadeAnewIsFoundByItsContentOrItsVendor() {
        List<Sent> before = List.of(sent(1, 1, "10", 1), sent(2, 2, "20", 2));
        Comparison now = Comparison.of(before, List.of(sent(8, 1, "10", 1), sent(9, 2, "25", 22)));
        assertThat(since(now, 8)).isEqualTo(Since.SAME);
        assertThat(since(now, 9)).isEqualTo(Since.CHANGED);
        assertThat(now.gone()).isEmpty();
        // a split payment has no single partner
        Comparison split = Comparison.of(before, List.of(sent(1, 1, "10", 1), sent(8, 2, "5", 8), sent(9, 2, "15", 9)));
        assertThat(since(split, 8)).isEqualTo(Since.NEW);
        assertThat(split.gone()).containsExactly(before.get(1));
    }

    @Test
    void theFirstTimeThereIsNothingToCompare() {
        assertThat(since(Comparison.of(null, List.of(sent(1, 1, "10", 1))), 1)).isEqualTo(Since.FIRST);
        assertThat(since(Comparison.of(List.of(), List.of(sent(1, 1, "10", 1))), 1))
                .isEqualTo(Since.NEW);
    }

    @Test
    void everyPaymentIsComparedOnceAndNothingIsLost() {
        Random random = new Random(11);
        for (int run = 0; run < 2_000; run++) {
            List<Sent> before = sending(random);
            List<Sent> now = sending(random);
            Comparison comparison = Comparison.of(before, now);
            long matched = comparison.now().values().stream()
                    .filter(one -> one.since() != Since.NEW)
                    .count();
            assertThat(comparison.now()).hasSize(now.size());
            assertThat(comparison.gone()).hasSize((int) (before.size() - matched));
            for (Sent one : now) {
                if (since(comparison, one.claim().value()) == Since.SAME) {
                    assertThat(before).anyMatch(was -> was.digest().equals(one.digest()));
                }
            }
        }
    }

    private static List<Sent> sending(Random random) {
        List<Sent> sent = new ArrayList<>();
        for (int claim = 1; claim <= 6; claim++) {
            if (random.nextBoolean()) {
                sent.add(sent(claim, 1 + random.nextInt(3), "10", random.nextInt(4)));
            }
        }
        return sent;
    }

    @Test
    void whatDeservesALookComesFirst() {
        List<Attention> order = List.of(
                new Attention(true, Since.SAME, List.of(), usd("1")),
                new Attention(false, Since.CHANGED, List.of(MarkKind.DUPLICATE), usd("1")),
                new Attention(false, Since.NEW, List.of(MarkKind.FAR_ABOVE, MarkKind.JUST_UNDER), usd("1")),
                new Attention(false, Since.CHANGED, List.of(MarkKind.FAR_ABOVE), usd("9")),
                new Attention(false, Since.CHANGED, List.of(), usd("99")),
                new Attention(false, Since.SAME, List.of(MarkKind.DUPLICATE), usd("5")),
                new Attention(false, Since.SAME, List.of(), usd("500")),
                new Attention(false, Since.SAME, List.of(), Money.zero(usd("1").currency())));
        List<Attention> shuffled = new ArrayList<>(order);
        Collections.shuffle(shuffled, new Random(5));
        shuffled.sort(Attention.ORDER);
        assertThat(shuffled).isEqualTo(order);
    }

    @Test
    void theDigestOfAllKnowsNoOrderButEveryClaimAndTheRound() {
        ClaimDigest one = sent(1, 1, "1", 1).digest();
        ClaimDigest two = sent(1, 1, "1", 2).digest();
        assertThat(ClaimDigest.ofAll(0, List.of(one, two))).isEqualTo(ClaimDigest.ofAll(0, List.of(two, one)));
        assertThat(List.of(
                        ClaimDigest.ofAll(0, List.of(one, two)),
                        ClaimDigest.ofAll(1, List.of(one, two)),
                        ClaimDigest.ofAll(0, List.of(one)),
                        ClaimDigest.ofAll(0, List.of(one, one)),
                        ClaimDigest.ofAll(0, List.of())))
                .doesNotHaveDuplicates();
    }
}
