package leveltally.core.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;

/** An amount divided in the proportion of others, to the last minor unit. */
public final class ProRata {
    private ProRata() {}

    /**
     * Each share is rounded half-up; what is left over goes to the largest weight, the first of equal ones.
     *
     * @param weights in the currency of the total; some may be below zero, together they are above zero
     * @return shares in the order of the weights that add up to the total
     */
    public static List<Money> of(Money total, List<Money> weights) {
        Money all = Money.sum(weights, total.currency());
        if (!all.isPositive()) {
            throw new IllegalArgumentException("weights that come to " + all + " divide nothing");
        }
        List<Money> shares = new ArrayList<>(weights.size());
        int largest = 0;
        Money left = total;
        for (int i = 0; i < weights.size(); i++) {
            long minor = BigDecimal.valueOf(total.minor())
                    .multiply(BigDecimal.valueOf(weights.get(i).minor()))
                    .divide(BigDecimal.valueOf(all.minor()), 0, RoundingMode.HALF_UP)
                    .longValueExact();
            Money share = Money.ofMinor(minor, total.currency());
            shares.add(share);
            left = left.minus(share);
            if (weights.get(i).compareTo(weights.get(largest)) > 0) {
                largest = i;
            }
        }
        shares.set(largest, shares.get(largest).plus(left));
        return List.copyOf(shares);
    }
}
