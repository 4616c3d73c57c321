package leveltally.core.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The coming weeks: what falls due each day, which discounts end when, and the cash that is left after each planned run.
 * A run pays what is due before the run after it, or loses its discount before then; each invoice once, at the first run
 * that wants it.
 *
 * @param late what was due before the first day
 * @param days one for every day of the window, in order
 */
public record Horizon(Due late, List<Day> days, List<Run> runs) {

    /** How many invoices fall due, and what is open on them. */
    public record Due(int count, Money open) {
        static Due none(Money zero) {
            return new Due(0, zero);
        }

        Due plus(Due other) {
            return new Due(count + other.count, open.plus(other.open));
        }
    }

    /**
     * One day.
     *
     * @param dying the discounts whose last day it is, grace included
     */
    public record Day(LocalDate date, Due due, int discounts, Money dying) {}

    /**
     * One planned run.
     *
     * @param cash what is left after it, above the floor; null when the cash is not known
     */
    public record Run(
            LocalDate date,
            int invoices,
            Money pays,
            Money saves,
            @Nullable Money cash) {
        public boolean isShort() {
            return cash != null && cash.isNegative();
        }
    }

    /**
     * The window drawn: heights in percent of the highest, cash in percent between the least and the most, zero included.
     *
     * @param low the least cash, in minor units, zero or below; {@code high} the most, zero or above
     */
    public record Scale(long mostDue, long mostDying, long low, long high) {
        public int ofDue(Day day) {
            return percent(day.due().open().minor(), mostDue);
        }

        public int ofDying(Day day) {
            return percent(day.dying().minor(), mostDying);
        }

        /** Where no cash is; null when all of it is nothing. */
        public @Nullable Integer zero() {
            return low == high ? null : percent(-low, high - low);
        }

        /** Where a run leaves the cash; null when it is not known. */
        public @Nullable Integer level(Run run) {
            return run.cash() == null || low == high ? null : percent(run.cash().minor() - low, high - low);
        }

        private static int percent(long part, long whole) {
            return whole == 0 ? 0 : (int) (100 * part / whole);
        }
    }

    public Scale scale() {
        long low = 0;
        long high = 0;
        for (Run run : runs) {
            long cash = run.cash() == null ? 0 : run.cash().minor();
            low = Math.min(low, cash);
            high = Math.max(high, cash);
        }
        return new Scale(
                days.stream().mapToLong(d -> d.due().open().minor()).max().orElse(0),
                days.stream().mapToLong(d -> d.dying().minor()).max().orElse(0),
                low,
                high);
    }

    /**
     * What the window rests on.
     *
     * @param today the first day
     * @param days how many days the window has, 1 to 120
     * @param firstRun the check date; {@code between} days lie between two runs, at least one
     * @param available the cash above the floor before the first run; null when not known
     */
    public record Plan(
            LocalDate today,
            int days,
            LocalDate firstRun,
            int between,
            int graceDays,
            @Nullable Money available) {
        public Plan {
            if (days < 1 || days > 120 || between < 1) {
                throw new IllegalArgumentException("horizon: " + days + " days, runs every " + between);
            }
        }
    }

    /**
     * @param due what is open by due date, without the invoices in {@code living}
     * @param living the invoices whose discount still lives on the first day, one by one
     * @param none zero of the currency
     */
    public static Horizon of(Plan plan, Map<LocalDate, Due> due, List<OpenInvoice> living, Money none) {
        TreeMap<LocalDate, Due> byDay = new TreeMap<>(due);
        Map<LocalDate, Due> dying = new HashMap<>();
        for (OpenInvoice invoice : living) {
            byDay.merge(invoice.dueDate(), new Due(1, invoice.open()), Due::plus);
            LocalDate until = invoice.discount().until();
            if (until != null && invoice.discount().left().isPositive()) {
                Due left = new Due(1, invoice.discount().left());
                dying.merge(until.plusDays(plan.graceDays()), left, Due::plus);
            }
        }
        Due late = byDay.headMap(plan.today()).values().stream().reduce(Due.none(none), Due::plus);
        List<Day> days = new ArrayList<>();
        for (int i = 0; i < plan.days(); i++) {
            LocalDate date = plan.today().plusDays(i);
            Due ends = dying.getOrDefault(date, Due.none(none));
            days.add(new Day(date, byDay.getOrDefault(date, Due.none(none)), ends.count(), ends.open()));
        }
        return new Horizon(late, List.copyOf(days), runs(plan, due, living, none));
    }

    private static List<Run> runs(Plan plan, Map<LocalDate, Due> due, List<OpenInvoice> living, Money none) {
        TreeMap<LocalDate, Due> waiting = new TreeMap<>(due);
        List<OpenInvoice> undecided = new ArrayList<>(living);
        List<Run> runs = new ArrayList<>();
        Money left = plan.available();
        LocalDate end = plan.today().plusDays(plan.days());
        for (LocalDate run = plan.firstRun(); run.isBefore(end); run = run.plusDays(plan.between())) {
            LocalDate next = run.plusDays(plan.between());
            Due paid = waiting.headMap(next).values().stream().reduce(Due.none(none), Due::plus);
            waiting.headMap(next).clear();
            Money saves = none;
            List<OpenInvoice> later = new ArrayList<>();
            for (OpenInvoice invoice : undecided) {
                if (invoice.dueDate().isBefore(next) || invoice.discount().lostIfItWaits(run, next, plan.graceDays())) {
                    var payment = invoice.payInFull(run, plan.graceDays());
                    paid = paid.plus(new Due(1, payment.cash()));
                    saves = saves.plus(payment.discount());
                } else {
                    later.add(invoice);
                }
            }
            undecided = later;
            left = left == null ? null : left.minus(paid.open());
            runs.add(new Run(run, paid.count(), paid.open(), saves, left));
        }
        return List.copyOf(runs);
    }
}
