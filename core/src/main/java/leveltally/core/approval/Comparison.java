package leveltally.core.approval;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.ClaimId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What became of the payments between two sendings of one batch, so that after a return only what changed stands out.
 *
 * @param now by claim
 * @param gone what was asked before and is not any more
 */
public record Comparison(Map<ClaimId, Compared> now, List<Sent> gone) {
    /** How a payment stands to the sending before. */
    public enum Since {
        NEW,
        CHANGED,
        SAME,
        /** There is nothing to compare it with. */
        FIRST
    }

    /** A payment as it was sent. */
    public record Sent(ClaimId claim, VendorId vendor, String payee, Money amount, ClaimDigest digest) {}

    /** @param was the amount before; null where the payment was not asked before */
    public record Compared(Since since, @Nullable Money was) {}

    public Comparison {
        now = Map.copyOf(now);
        gone = List.copyOf(gone);
    }

    /**
     * Finds each payment again by its claim, or by its digest, or, where a claim was made anew, as the only one of its vendor
     * without a partner.
     *
     * @param before null when nothing was sent before
     */
    public static Comparison of(@Nullable List<Sent> before, List<Sent> now) {
        Map<ClaimId, Compared> compared = new HashMap<>();
        if (before == null) {
            now.forEach(one -> compared.put(one.claim(), new Compared(Since.FIRST, null)));
            return new Comparison(compared, List.of());
        }
        Map<ClaimId, Sent> left = new HashMap<>();
        before.forEach(one -> left.put(one.claim(), one));
        List<Sent> alone = new ArrayList<>();
        for (Sent one : now) {
            Sent was = left.remove(one.claim());
            if (was == null) {
                alone.add(one);
            } else {
                compared.put(one.claim(), compared(was, one));
            }
        }
        for (Sent one : alone) {
            Sent was = partner(one, alone, left);
            compared.put(one.claim(), was == null ? new Compared(Since.NEW, null) : compared(was, one));
        }
        List<Sent> gone =
                before.stream().filter(one -> left.containsKey(one.claim())).toList();
        return new Comparison(compared, gone);
    }

    private static @Nullable Sent partner(Sent one, List<Sent> alone, Map<ClaimId, Sent> left) {
        List<Sent> same = left.values().stream()
                .filter(was -> was.digest().equals(one.digest()))
                .toList();
        List<Sent> ofVendor = left.values().stream()
                .filter(was -> was.vendor().equals(one.vendor()))
                .toList();
        boolean only = ofVendor.size() == 1
                && alone.stream()
                                .filter(other -> other.vendor().equals(one.vendor()))
                                .count()
                        == 1;
        Sent found = !same.isEmpty() ? same.get(0) : only ? ofVendor.get(0) : null;
        return found == null ? null : left.remove(found.claim());
    }

    private static Compared compared(Sent was, Sent one) {
        return new Compared(was.digest().equals(one.digest()) ? Since.SAME : Since.CHANGED, was.amount());
    }
}
