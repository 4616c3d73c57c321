package leveltally.server.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Dates;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;
import leveltally.core.selection.Span;
import org.jspecify.annotations.Nullable;

/**
 * A selection in the order and the groups of a screen.
 *
 * @param rows all of them, group after group
 * @param lineAt before which group the cash line is drawn; −1 for none
 */
record Listing(Selection selection, List<Selection.Row> rows, List<Group> groups, int lineAt) {
    /** How a list is grouped. */
    enum By {
        DAY,
        VENDOR,
        GROUP,
        CASH
    }

    /** What of a selection is listed. */
    enum Showing {
        ALL,
        TAKEN,
        LEFT_OUT;

        boolean shows(Selection.Row row) {
            return this == ALL || (this == TAKEN) == row.isTaken();
        }
    }

    /**
     * Neighbouring rows under one heading.
     *
     * @param first the place of its first row
     * @param day the day that its rows fall due on, where that is what they have in common
     * @param claim true where the heading is one claim in the order of cash
     */
    record Group(
            String key,
            String title,
            String detail,
            @Nullable LocalDate day,
            int first,
            List<Selection.Row> rows,
            boolean claim) {
        Money toPay(Money none) {
            return Listing.toPay(rows, none);
        }
    }

    /** Only what falls due, or loses its discount, in the days of the shape is listed; totals stay the batch's. */
    static Listing of(Selection selection, DueLists.Shape shape, LocalDate today) {
        Maker maker = new Maker(selection, shape, today);
        switch (shape.by()) {
            case DAY -> maker.byDay();
            case VENDOR -> maker.byName(row -> row.candidate().payee().name());
            case GROUP -> maker.byName(row -> row.candidate().payee().group());
            case CASH -> maker.byCash();
        }
        return new Listing(selection, List.copyOf(maker.rows), List.copyOf(maker.groups), maker.lineAt);
    }

    static Money toPay(List<Selection.Row> rows, Money none) {
        Money total = none;
        for (Selection.Row row : rows) {
            if (row.decision() instanceof Decision.Taken taken) {
                total = total.plus(taken.payment().cash());
            }
        }
        return total;
    }

    static List<Money> open(List<Selection.Row> rows) {
        return Selection.byCurrency(
                rows.stream().map(row -> row.candidate().invoice().open()).toList());
    }

    /** The first row a reason keeps out; 0 when none is listed. */
    long first(leveltally.core.selection.LeftOutReason reason) {
        for (Selection.Row row : rows) {
            if (row.decision() instanceof Decision.LeftOut out && out.reason() == reason) {
                return row.candidate().invoice().id().value();
            }
        }
        return 0;
    }

    Money none() {
        return Money.zero(selection.criteria().currency());
    }

    /** {@code today}, {@code in 3 days}, {@code 9 days late}. */
    static String inDays(LocalDate date, LocalDate today) {
        long days = today.until(date, java.time.temporal.ChronoUnit.DAYS);
        if (days == 0) {
            return "today";
        }
        String count = Math.abs(days) == 1 ? "1 day" : Math.abs(days) + " days";
        return days > 0 ? "in " + count : count + " late";
    }

    private static final class Maker {
        private final Selection selection;
        private final List<Selection.Row> shown;
        private final LocalDate today;
        private final RowOrder order;
        private final List<Selection.Row> rows = new ArrayList<>();
        private final List<Group> groups = new ArrayList<>();
        private int lineAt = -1;

        Maker(Selection selection, DueLists.Shape shape, LocalDate today) {
            Span<LocalDate> days = shape.days();
            Showing showing = shape.showing();
            this.selection = selection;
            this.order = shape.order();
            this.shown = days.isAll() && showing == Showing.ALL
                    ? selection.rows()
                    : selection.rows().stream()
                            .filter(showing::shows)
                            .filter(row -> days.isAll() || falls(row, days))
                            .toList();
            this.today = today;
        }

        private void add(String key, String title, String detail, List<Selection.Row> members, boolean claim) {
            add(key, title, detail, null, members, claim);
        }

        private void add(
                String key,
                String title,
                String detail,
                @Nullable LocalDate day,
                List<Selection.Row> members,
                boolean claim) {
            String count = members.size() == 1 ? "1 invoice" : members.size() + " invoices";
            List<Selection.Row> sorted = order.of(members);
            groups.add(new Group(
                    key, title, detail.isEmpty() ? count : detail + " · " + count, day, rows.size(), sorted, claim));
            rows.addAll(sorted);
        }

        private boolean falls(Selection.Row row, Span<LocalDate> days) {
            var invoice = row.candidate().invoice();
            LocalDate until = invoice.discount().until();
            return days.contains(invoice.dueDate())
                    || until != null
                            && days.contains(until.plusDays(selection.criteria().graceDays()));
        }

        void byDay() {
            Map<LocalDate, List<Selection.Row>> days = new LinkedHashMap<>();
            List<Selection.Row> late = new ArrayList<>();
            List<Selection.Row> notDue = new ArrayList<>();
            for (Selection.Row row : shown) {
                LocalDate date = row.candidate().invoice().dueDate();
                if (date.isAfter(selection.criteria().dueBy())) {
                    notDue.add(row);
                } else if (date.isBefore(today)) {
                    late.add(row);
                } else {
                    days.computeIfAbsent(date, none -> new ArrayList<>()).add(row);
                }
            }
            if (!late.isEmpty()) {
                add("late", "Late", "", late, false);
            }
            days.forEach((date, members) ->
                    add(date.toString(), Dates.inWords(date), inDays(date, today), date, members, false));
            if (!notDue.isEmpty()) {
                String why = selection.criteria().nextRun() == null
                        ? "added by hand"
                        : "discount lost if it waits, or added by hand";
                add("discount", "Not due yet", why, notDue, false);
            }
        }

        void byName(java.util.function.Function<Selection.Row, String> name) {
            Map<String, List<Selection.Row>> named =
                    new java.util.TreeMap<>(String.CASE_INSENSITIVE_ORDER.thenComparing(Comparator.naturalOrder()));
            shown.forEach(row -> named.computeIfAbsent(name.apply(row), none -> new ArrayList<>())
                    .add(row));
            named.forEach((title, members) -> add("n" + title, title, "", members, false));
        }

        /** Claims as cash is given out, the line where it ran out, then what was left out for other reasons. */
        void byCash() {
            Map<InvoiceId, Selection.Row> now = new LinkedHashMap<>();
            shown.forEach(row -> now.put(row.candidate().invoice().id(), row));
            Integer line = selection.lineAt().orElse(null);
            Set<InvoiceId> seen = new HashSet<>();
            for (int i = 0; i < selection.queue().size(); i++) {
                Selection.Queued queued = selection.queue().get(i);
                List<Selection.Row> members = queued.claim().rows().stream()
                        .map(row -> now.get(row.candidate().invoice().id()))
                        .filter(java.util.Objects::nonNull)
                        .toList();
                members.forEach(row -> seen.add(row.candidate().invoice().id()));
                if (line != null && line == i) {
                    lineAt = groups.size();
                }
                if (members.isEmpty()) {
                    continue;
                }
                add(
                        "c" + members.get(0).candidate().invoice().id().value(),
                        queued.claim().payee().name(),
                        "priority " + queued.claim().payee().priority()
                                + (queued.taken()
                                        ? ""
                                        : " · beyond the cash line: "
                                                + queued.claim().amount()),
                        members,
                        true);
            }
            Map<String, List<Selection.Row>> out = new LinkedHashMap<>();
            for (Selection.Row row : shown) {
                if (!seen.contains(row.candidate().invoice().id()) && row.decision() instanceof Decision.LeftOut why) {
                    // what is beyond the line inside a claim paid in part stands under the same reason
                    out.computeIfAbsent(why.reason().words(), none -> new ArrayList<>())
                            .add(row);
                }
            }
            out.forEach((reason, members) -> add("r" + reason, "Left out: " + reason, "", members, false));
        }
    }

    /** What a row says beside its amounts. */
    record Note(String words, String kind) {
        static Note of(Selection.Row row, @Nullable LocalDate until) {
            if (row.decision() instanceof Decision.LeftOut out) {
                String words = out.reason().words() + (out.detail().isEmpty() ? "" : ": " + out.detail());
                boolean byHand = out.reason() == leveltally.core.selection.LeftOutReason.TAKEN_OUT_BY_HAND;
                return new Note(words, byHand ? "hand" : "left-out");
            }
            Decision.Taken taken = (Decision.Taken) row.decision();
            List<String> words = new ArrayList<>();
            if (taken.byHand()) {
                words.add("taken in by hand");
            }
            if (taken.payment()
                            .settled()
                            .plus(taken.credit())
                            .compareTo(row.candidate().invoice().open())
                    < 0) {
                words.add("paid in part");
            }
            if (taken.credit().isPositive()) {
                words.add("less credit " + taken.credit());
            }
            if (taken.payment().discount().isPositive() && until != null) {
                words.add("saves " + taken.payment().discount() + " until " + until.getDayOfMonth() + " "
                        + until.getMonth().getDisplayName(java.time.format.TextStyle.SHORT, java.util.Locale.ENGLISH));
            }
            return new Note(
                    String.join(", ", words),
                    taken.byHand() ? "hand" : taken.payment().discount().isPositive() ? "discount" : "none");
        }
    }
}
