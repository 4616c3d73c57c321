package leveltally.server.selection;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Currency;
import java.util.List;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankingDays;
import leveltally.core.money.Money;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.selection.Selection;
import leveltally.server.frame.MoneyView;

/** What a screen is shown of a listing. */
final class DueViews {
    static final int PAGE = 100;
    private static final int MOST_CREDITS_SHOWN = 200;

    static final List<String> HEADS = List.of(
            "entry",
            "vendor",
            "reference",
            "invoice_date",
            "due_date",
            "currency",
            "open",
            "taken",
            "to_pay",
            "discount",
            "credit",
            "note");

    private DueViews() {}

    static DueView of(Listing list, LocalDate today, BankingDays days) {
        Selection selection = list.selection();
        Criteria criteria = selection.criteria();
        Money limit = criteria.paying().limit();
        Money left = selection.left().orElse(null);
        return new DueView(
                criteria.currency().getCurrencyCode(),
                criteria.checkDate(),
                days.isBankingDay(criteria.checkDate()),
                criteria.ledgerDate(),
                criteria.dueBy(),
                criteria.nextRun(),
                selection.taken().size(),
                selection.claims().size(),
                selection.toPay().toString(),
                selection.saved().toString(),
                selection.credited().toString(),
                limit == null ? null : limit.toString(),
                left == null ? null : left.toString(),
                left == null ? null : left.isNegative(),
                list.rows().size(),
                open(list.rows(), criteria.currency()),
                selection.leftOut().stream()
                        .map(out -> new DueView.LeftOutView(
                                out.reason().name(),
                                out.reason().words(),
                                out.reason().wayOut(),
                                out.count(),
                                money(out.open()),
                                list.first(out.reason())))
                        .toList(),
                selection.leftOut().stream()
                        .mapToInt(Selection.LeftOutTotal::count)
                        .sum(),
                selection.creditsOut().stream()
                        .limit(MOST_CREDITS_SHOWN)
                        .map(out -> new DueView.CreditOutView(
                                out.credit().credit().id().value(),
                                out.credit().vendor().value(),
                                out.credit().credit().reference(),
                                MoneyView.of(out.credit().credit().open()),
                                out.why()))
                        .toList(),
                list.groups().stream()
                        .map(group -> view(group, list.none(), days))
                        .toList(),
                list.lineAt() < 0 ? null : list.lineAt(),
                list.rows().stream()
                        .mapToLong(row -> row.candidate().invoice().id().value())
                        .toArray(),
                rows(list, 0, today),
                selection.ways().stream()
                        .map(way -> view(way, criteria.paying().way() == way.way()))
                        .toList(),
                selection.offsets().stream().map(DueViews::view).toList());
    }

    /** @param selected entry numbers and ranges of them, or {@code all} */
    static DueView.TotalView total(Listing list, String selected) {
        List<Selection.Row> rows = selected(list, selected);
        return new DueView.TotalView(
                rows.size(),
                open(rows, list.none().currency()),
                Listing.toPay(rows, list.none()).toString());
    }

    /** @param selected entry numbers and ranges of them, or {@code all} */
    static List<Selection.Row> selected(Listing list, String selected) {
        if (selected.equals("all")) {
            return list.rows();
        }
        Set<InvoiceId> wanted = EntryRanges.read(selected);
        return list.rows().stream()
                .filter(row -> wanted.contains(row.candidate().invoice().id()))
                .toList();
    }

    /** A page of the list: rows {@code from}, {@code from} + 1, and so on. */
    static List<DueView.DueRowView> rows(Listing list, int from, LocalDate today) {
        int until = Math.min(from + PAGE, list.rows().size());
        return from >= until
                ? List.of()
                : list.rows().subList(from, until).stream()
                        .map(row -> view(row, today))
                        .toList();
    }

    private static DueView.GroupView view(Listing.Group group, Money none, BankingDays days) {
        return new DueView.GroupView(
                group.key(),
                group.day() == null ? group.title() : days.inWords(group.day()),
                group.detail(),
                group.first(),
                group.rows().size(),
                group.claim(),
                open(group.rows(), none.currency()),
                group.toPay(none).toString());
    }

    private static DueView.CashWayView view(Selection.WayOutcome way, boolean chosen) {
        return new DueView.CashWayView(
                way.way().name(),
                way.way().words(),
                way.claims(),
                way.spends().toString(),
                way.saves().toString(),
                way.late(),
                way.lateCash().toString(),
                way.error().isZero() ? null : way.error().toString(),
                chosen);
    }

    private static DueView.OffsetProposalView view(Selection.OffsetProposal offset) {
        return new DueView.OffsetProposalView(
                offset.payee().vendor().value(),
                offset.payee().name(),
                offset.settling().credit().toString(),
                offset.settling().lines().stream()
                        .map(line -> line.invoice().id().value())
                        .toList(),
                offset.settling().uses().stream()
                        .map(use -> use.credit().id().value())
                        .toList());
    }

    private static DueView.DueRowView view(Selection.Row row, LocalDate today) {
        var invoice = row.candidate().invoice();
        boolean taken = row.isTaken();
        LeftOutReason reason = row.decision() instanceof Decision.LeftOut out ? out.reason() : null;
        Listing.Note note = Listing.Note.of(row, invoice.discount().until());
        return new DueView.DueRowView(
                invoice.id().value(),
                row.candidate().payee().vendor().value(),
                row.candidate().payee().name(),
                invoice.reference(),
                invoice.dueDate(),
                Listing.inDays(invoice.dueDate(), today),
                invoice.dueDate().isBefore(today),
                taken,
                reason == null || reason.movable(),
                note.words(),
                note.kind(),
                reason == null ? "" : reason.wayOut(),
                invoice.open().toString(),
                row.decision() instanceof Decision.Taken t ? t.payment().cash().toString() : null,
                invoice.open().currency().getCurrencyCode());
    }

    /** A row as CSV, under {@link #HEADS}. */
    static List<String> cells(Selection.Row row) {
        var invoice = row.candidate().invoice();
        Decision.Taken taken = row.decision() instanceof Decision.Taken t ? t : null;
        return List.of(
                String.valueOf(invoice.id().value()),
                row.candidate().payee().name(),
                invoice.reference(),
                invoice.invoiceDate().toString(),
                invoice.dueDate().toString(),
                invoice.open().currency().getCurrencyCode(),
                invoice.open().plain(),
                taken == null ? "no" : "yes",
                taken == null ? "" : taken.payment().cash().plain(),
                taken == null ? "" : taken.payment().discount().plain(),
                taken == null ? "" : taken.credit().plain(),
                Listing.Note.of(row, invoice.discount().until()).words());
    }

    /** One amount a currency, the account's own first, whatever the rows are sorted by. */
    private static List<MoneyView> open(List<Selection.Row> rows, Currency own) {
        return Listing.open(rows).stream()
                .sorted(Comparator.comparing(
                                (Money amount) -> !amount.currency().equals(own))
                        .thenComparing(amount -> amount.currency().getCurrencyCode()))
                .map(MoneyView::of)
                .toList();
    }

    private static List<MoneyView> money(List<Money> amounts) {
        return amounts.stream().map(MoneyView::of).toList();
    }
}
