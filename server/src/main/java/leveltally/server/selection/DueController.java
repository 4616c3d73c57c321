package leveltally.server.selection;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import leveltally.core.Dates;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is due, taken and left out. */
@RestController
@RequestMapping("/api/due")
class DueController {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

    private final Due due;

    DueController(Due due) {
        this.due = due;
    }

    /** How the list is grouped. */
    enum Group {
        DAY,
        VENDOR
    }

    @Schema(
            requiredProperties = {
                "invoice",
                "vendor",
                "vendorName",
                "reference",
                "dueDate",
                "due",
                "late",
                "taken",
                "movable",
                "note",
                "noteKind",
                "open",
                "currency"
            })
    record RowView(
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
            String open,
            @Nullable String toPay,
            String currency) {}

    @Schema(requiredProperties = {"key", "title", "detail", "count", "open", "toPay", "rows"})
    record GroupView(
            String key,
            String title,
            String detail,
            int count,
            List<MoneyView> open,
            String toPay,
            List<RowView> rows) {}

    @Schema(requiredProperties = {"reason", "words", "count"})
    record LeftOutView(String reason, String words, int count) {}

    @Schema(
            requiredProperties = {"currency", "count", "claims", "toPay", "saved", "listed", "open", "leftOut", "groups"
            })
    record DueView(
            String currency,
            int count,
            int claims,
            String toPay,
            String saved,
            int listed,
            List<MoneyView> open,
            List<LeftOutView> leftOut,
            List<GroupView> groups) {}

    @Schema(requiredProperties = {"count", "open", "toPay"})
    record TotalView(int count, List<MoneyView> open, String toPay) {}

    @GetMapping
    DueView list(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "DAY") Group group) {
        by.mayDo(Deed.READ);
        Selection selection = due.select(question);
        List<LeftOutView> leftOut = selection.leftOut().stream()
                .map(out -> new LeftOutView(out.reason().name(), out.reason().words(), out.count()))
                .toList();
        return new DueView(
                selection.criteria().currency().getCurrencyCode(),
                selection.taken().size(),
                selection.claims().size(),
                selection.toPay().toString(),
                selection.saved().toString(),
                selection.rows().size(),
                openTotals(selection.rows()),
                leftOut,
                groups(selection, group, by.today()));
    }

    /** What the selected rows come to; the browser adds nothing up. */
    @GetMapping("/total")
    TotalView total(
            Actor by, @ParameterObject @ModelAttribute DueQuestion question, @RequestParam List<Long> selected) {
        by.mayDo(Deed.READ);
        Selection selection = due.select(question);
        Set<Long> wanted = new HashSet<>(selected);
        List<Selection.Row> rows = selection.rows().stream()
                .filter(row -> wanted.contains(row.candidate().invoice().id().value()))
                .toList();
        return new TotalView(
                rows.size(), openTotals(rows), toPay(rows, selection).toString());
    }

    private static List<GroupView> groups(Selection selection, Group by, LocalDate today) {
        Map<String, List<Selection.Row>> groups = new LinkedHashMap<>();
        List<Selection.Row> notDue = new ArrayList<>();
        if (by == Group.DAY) {
            for (Selection.Row row : selection.rows()) {
                LocalDate date = row.candidate().invoice().dueDate();
                if (date.isAfter(selection.criteria().dueBy())) {
                    notDue.add(row);
                } else {
                    String key = date.isBefore(today) ? "late" : date.toString();
                    groups.computeIfAbsent(key, none -> new ArrayList<>()).add(row);
                }
            }
        } else {
            selection.rows().stream()
                    .sorted(java.util.Comparator.comparing(
                            row -> row.candidate().vendorName(), String.CASE_INSENSITIVE_ORDER))
                    .forEach(row -> groups.computeIfAbsent(
                                    "v" + row.candidate().vendor().value(), none -> new ArrayList<>())
                            .add(row));
        }
        if (!notDue.isEmpty()) {
            groups.put("discount", notDue);
        }
        List<GroupView> views = new ArrayList<>();
        groups.forEach((key, rows) -> views.add(group(key, rows, selection, today)));
        return views;
    }

    private static GroupView group(String key, List<Selection.Row> rows, Selection selection, LocalDate today) {
        String detail = rows.size() == 1 ? "1 invoice" : rows.size() + " invoices";
        String title;
        if (key.equals("late")) {
            title = "Late";
        } else if (key.equals("discount")) {
            title = "Not due yet";
            detail = (selection.criteria().nextRun() == null
                            ? "added by hand · "
                            : "discount lost if it waits, or added by hand · ")
                    + detail;
        } else if (key.startsWith("v")) {
            title = rows.get(0).candidate().vendorName();
        } else {
            LocalDate date = LocalDate.parse(key);
            title = Dates.inWords(date);
            detail = inDays(date, today) + " · " + detail;
        }
        List<RowView> views = rows.stream().map(row -> view(row, today)).toList();
        return new GroupView(
                key,
                title,
                detail,
                rows.size(),
                openTotals(rows),
                toPay(rows, selection).toString(),
                views);
    }

    private static RowView view(Selection.Row row, LocalDate today) {
        var invoice = row.candidate().invoice();
        boolean taken = row.decision() instanceof Decision.Taken;
        boolean byHand = row.decision() instanceof Decision.LeftOut out
                && out.reason() == leveltally.core.selection.LeftOutReason.TAKEN_OUT_BY_HAND;
        String note = "";
        String kind = "none";
        String toPay = null;
        if (row.decision() instanceof Decision.LeftOut out) {
            note = out.reason().words() + (out.detail().isEmpty() ? "" : ": " + out.detail());
            kind = byHand ? "hand" : "left-out";
        } else if (row.decision() instanceof Decision.Taken take) {
            toPay = take.payment().cash().toString();
            if (take.payment().discount().isPositive()) {
                note = "saves " + take.payment().discount() + " until "
                        + day(invoice.discount().until());
                kind = "discount";
            }
        }
        return new RowView(
                invoice.id().value(),
                row.candidate().vendor().value(),
                row.candidate().vendorName(),
                invoice.reference(),
                invoice.dueDate(),
                inDays(invoice.dueDate(), today),
                invoice.dueDate().isBefore(today),
                taken,
                taken || byHand,
                note,
                kind,
                invoice.open().toString(),
                toPay,
                invoice.open().currency().getCurrencyCode());
    }

    private static String day(@Nullable LocalDate date) {
        return date == null ? "" : date.format(DAY);
    }

    private static String inDays(LocalDate date, LocalDate today) {
        long days = today.until(date, ChronoUnit.DAYS);
        if (days == 0) {
            return "today";
        }
        String count = Math.abs(days) == 1 ? "1 day" : Math.abs(days) + " days";
        return days > 0 ? "in " + count : count + " late";
    }

    private static List<MoneyView> openTotals(List<Selection.Row> rows) {
        Map<String, Money> totals = new LinkedHashMap<>();
        for (Selection.Row row : rows) {
            Money open = row.candidate().invoice().open();
            totals.merge(open.currency().getCurrencyCode(), open, Money::plus);
        }
        return totals.values().stream().map(MoneyView::of).toList();
    }

    private static Money toPay(List<Selection.Row> rows, Selection selection) {
        Money total = Money.zero(selection.criteria().currency());
        for (Selection.Row row : rows) {
            if (row.decision() instanceof Decision.Taken taken) {
                total = total.plus(taken.payment().cash());
            }
        }
        return total;
    }
}
