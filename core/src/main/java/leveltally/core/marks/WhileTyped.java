package leveltally.core.marks;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** Which documents of a vendor the one that is being typed may be a second time. */
public final class WhileTyped {
    /** One digit away counts only between documents of the same days. */
    private static final int DAYS_OF_ONE_DIGIT = 7;

    private WhileTyped() {}

    /** @param amount null while none is typed */
    public record Document(
            String reference, LocalDate date, @Nullable Money amount) {}

    /** One that is in already. */
    public record Earlier(InvoiceId id, Document document) {}

    /** @param words how they are alike, such as “the same reference and amount” */
    public record Likely(Earlier earlier, String words) {}

    /** Those that are alike, in the order given; a reference without a letter or digit is like none. */
    public static List<Likely> secondTime(Document typed, List<Earlier> earlier) {
        List<Likely> likely = new ArrayList<>();
        if (typed.reference().chars().noneMatch(Character::isLetterOrDigit)) {
            return likely;
        }
        for (Earlier one : earlier) {
            Likeness likeness = Likeness.of(typed.reference(), one.document().reference());
            boolean sameAmount = typed.amount() != null
                    && typed.amount().equals(one.document().amount());
            if (isLikely(typed, one.document(), likeness, sameAmount)) {
                likely.add(new Likely(one, likeness.words() + (sameAmount ? " and amount" : "")));
            }
        }
        return likely;
    }

    private static boolean isLikely(Document typed, Document other, Likeness likeness, boolean sameAmount) {
        return switch (likeness) {
            case SAME, ONE_SWAP -> true;
            case ONE_DIGIT ->
                sameAmount && Math.abs(ChronoUnit.DAYS.between(typed.date(), other.date())) <= DAYS_OF_ONE_DIGIT;
            case OTHER -> false;
        };
    }
}
