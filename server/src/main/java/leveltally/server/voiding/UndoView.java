package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * What undoing some payments would do, before anything is written.
 *
 * @param what they are called in a sentence
 * @param paper true where all of them are checks: checks are voided, anything else is reversed
 * @param amounts what they come to, by currency
 * @param recap what all of it writes together, by month and account
 * @param byTwo true where a second person has to agree
 * @param comesBack true where the bank's reference of the return is asked for
 * @param refused how many cannot be undone so; then none is
 */
public record UndoView(
        String what,
        boolean paper,
        List<UndoneView> payments,
        List<MoneyView> amounts,
        List<RecapView> recap,
        List<UndoneMonth> months,
        boolean byTwo,
        boolean comesBack,
        int refused) {
    /**
     * @param check the number's id in the register; null for what no paper carries
     * @param year what it means for what is reported of a year; empty where nothing is
     * @param bank what the bank knows and would hear; empty for what no paper carries
     * @param warning what is worth a second look; empty for nothing
     * @param refused why it cannot be undone so; null where it can
     */
    public record UndoneView(
            long payment,
            @Nullable Long check,
            String name,
            String payee,
            MoneyView amount,
            LocalDate checkDate,
            LocalDate ledgerDate,
            LocalDate date,
            String period,
            List<SideView> lines,
            List<UndoneItem> items,
            String discountLost,
            String year,
            String bank,
            String warning,
            @Nullable String refused) {}

    /** One line of an entry: a debit or a credit. */
    public record SideView(String account, String debit, String credit) {}

    /**
     * @param becomes in words
     * @param fate as it can be asked for; empty where nobody chooses: a credit is free again, a prepayment ends, and what that was
     *     matched with is open again
     */
    public record UndoneItem(
            long invoice,
            String reference,
            String becomes,
            String fate,
            String moves,
            String openBefore,
            String openAfter,
            String discount,
            boolean lost) {}

    public record RecapView(String period, String account, String debit, String credit, String currency) {}

    /** @param locked nothing of it moves */
    public record UndoneMonth(String period, boolean locked, List<MovedView> lines) {}

    /**
     * What an account moves in the month; debits are positive.
     *
     * @param from the place of {@code before} on a line from −1 to 1 on which the largest of the month stands at an end; {@code to}
     *     that of {@code after}
     */
    public record MovedView(
            String account, String currency, String before, String after, double from, double to, boolean moves) {}
}
