package leveltally.server.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * The list of Due: what is taken, what is left out and why, and what it comes to.
 *
 * @param checkDateIsBankingDay whether the bank of the account works on it
 * @param order the entry numbers of all rows in their order; {@code rows} are the first page of them
 * @param lineAt before which group the cash line is drawn
 * @param left what remains of the limit
 */
public record DueView(
        String currency,
        LocalDate checkDate,
        boolean checkDateIsBankingDay,
        LocalDate ledgerDate,
        LocalDate dueBy,
        @Nullable LocalDate nextRun,
        int count,
        int claims,
        String toPay,
        String saved,
        String credited,
        @Nullable String limit,
        @Nullable String left,
        @Nullable Boolean overLimit,
        int listed,
        List<MoneyView> open,
        List<LeftOutView> leftOut,
        int leftOutCount,
        List<CreditOutView> creditsOut,
        List<GroupView> groups,
        @Nullable Integer lineAt,
        long[] order,
        List<DueRowView> rows,
        List<CashWayView> ways,
        List<OffsetProposalView> offsets) {
    record DueRowView(
            long invoice,
            long vendor,
            String vendorName,
            String reference,
            LocalDate dueDate,
            String due,
            boolean late,
            boolean taken,
            boolean movable,
            String note,
            String noteKind,
            String wayOut,
            String open,
            @Nullable String toPay,
            String currency) {}

    /** {@code first} is the place of its first row; {@code claim} is true where the heading is one claim. */
    record GroupView(
            String key,
            String title,
            String detail,
            int first,
            int count,
            boolean claim,
            List<MoneyView> open,
            String toPay) {}

    /** {@code first} is the entry number of the first row of the list it keeps out; 0 when none is listed. */
    record LeftOutView(String reason, String words, String wayOut, int count, List<MoneyView> open, long first) {}

    /** A credit the batch does not use, and why. */
    record CreditOutView(long credit, long vendor, String reference, MoneyView open, String why) {}

    record CashWayView(
            String way,
            String words,
            int claims,
            String spends,
            String saves,
            int late,
            String lateCash,
            @Nullable String error,
            boolean chosen) {}

    record OffsetProposalView(long vendor, String vendorName, String amount, List<Long> invoices, List<Long> credits) {}

    record TotalView(int count, List<MoneyView> open, String toPay) {}
}
