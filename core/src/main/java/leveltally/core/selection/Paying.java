package leveltally.core.selection;

import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * How what was taken becomes claims.
 *
 * @param credits whether open credits reduce the payments
 * @param smallest no claim below this; null for any
 * @param limit no more cash than this; null for no limit
 * @param way what happens where the limit runs out
 */
public record Paying(
        boolean credits,
        Grouping grouping,
        ClaimOrder order,
        @Nullable Money smallest,
        @Nullable Money limit,
        CashWay way) {

    /** Everything taken, one claim for each payee, by name. */
    public static final Paying PLAIN =
            new Paying(false, Grouping.PAYEE, ClaimOrder.PAYEE, null, null, CashWay.STOP_AT_THE_LINE);

    /** What shares a claim. */
    public enum Grouping {
        PAYEE("one payment to a payee"),
        INVOICE("one payment for an invoice");

        private final String words;

        Grouping(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Paying {
        if (limit != null && limit.isNegative()) {
            throw Refusal.invalidField(
                    "limit-below-zero",
                    "limit",
                    "A cash limit cannot be below zero. Type an amount, or leave it empty.");
        }
        if (smallest != null && smallest.isNegative()) {
            throw Refusal.invalidField(
                    "smallest-below-zero",
                    "smallest",
                    "The smallest payment cannot be below zero. Type an amount, or leave it empty.");
        }
    }
}
