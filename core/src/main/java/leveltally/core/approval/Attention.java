package leveltally.core.approval;

import java.util.Comparator;
import java.util.List;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;

/**
 * How much a payment deserves a look: what changed since the last sending before what did not, then the gravest mark, then
 * the number of marks, then the amount.
 *
 * @param inTheWay true when the payment could not go on as it is, such as under a hold
 */
public record Attention(boolean inTheWay, Comparison.Since since, List<MarkKind> marks, Money amount) {
    /** Those that deserve it most come first. */
    public static final Comparator<Attention> ORDER = Comparator.comparing(Attention::inTheWay)
            .reversed()
            .thenComparing(one -> one.since() == Comparison.Since.SAME)
            .thenComparing(Attention::gravest)
            .thenComparing(one -> one.marks().size(), Comparator.reverseOrder())
            .thenComparing(Attention::amount, Comparator.reverseOrder());

    public Attention {
        marks = List.copyOf(marks);
    }

    private int gravest() {
        return marks.stream().mapToInt(MarkKind::ordinal).min().orElse(MarkKind.values().length);
    }
}
