package leveltally.core.voiding;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.money.Money;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.Reportable;
import org.jspecify.annotations.Nullable;

/**
 * What a plan does beside its entry, for whoever looks before the deed: what is open afterwards on each invoice and credit,
 * which discount comes back and whether it can still be earned, and whose year moves.
 *
 * @param items in the order of their entry numbers
 * @param discountLost what was earned and can no more be, when it is paid again
 */
public record Effect(List<OnItem> items, Money discountLost, OnYear year) {
    /** An invoice or credit as it stands before the deed. */
    public record Before(
            InvoiceId id,
            String reference,
            Money amount,
            Money open,
            Money discountable,
            BigDecimal rate,
            @Nullable LocalDate discountUntil,
            Money atPar,
            Money taken) {}

    /** What becomes of an item. */
    public enum Becomes {
        OPEN("open again"),
        HELD("open again and held"),
        CANCELLED("cancelled"),
        FREE("free again"),
        ENDED("no longer paid ahead");

        private final String words;

        Becomes(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * @param moves what the payment had settled of it
     * @param discount the discount that is given back with it
     * @param lost true where that can be earned no more
     */
    public record OnItem(
            InvoiceId id,
            String reference,
            Becomes becomes,
            Money moves,
            Money openBefore,
            Money openAfter,
            Money discount,
            boolean lost) {}

    /** What it means for what the vendor was paid in a year. */
    public enum OnYear {
        /** Nothing of this vendor is reported. */
        NOT_REPORTED,
        /** The year's total falls. */
        FALLS,
        /** An earlier year stays as it was reported; the vendor is listed, and the controller chooses. */
        EARLIER_YEAR;

        /** What it means for the year of a check date; empty where nothing is reported. */
        public String inWords(int year, Money paid) {
            return switch (this) {
                case NOT_REPORTED -> "";
                case FALLS -> "What is reported of " + year + " for the vendor falls by " + paid + ".";
                case EARLIER_YEAR ->
                    year
                            + " stays as it was reported. The vendor is listed with an earlier year changed, and the controller"
                            + " chooses.";
            };
        }
    }

    /** What a payment means for a reported year when it is undone on a day. */
    public static OnYear year(Reportable of, LocalDate checkDate, LocalDate on) {
        if (of == Reportable.NO) {
            return OnYear.NOT_REPORTED;
        }
        return checkDate.getYear() == on.getYear() ? OnYear.FALLS : OnYear.EARLIER_YEAR;
    }

    /**
     * @param before every invoice and credit the plan touches
     * @param again the day on which it would be paid again
     * @param graceDays the company's
     */
    public static Effect of(UndoPlan plan, Map<InvoiceId, Before> before, LocalDate again, int graceDays, OnYear year) {
        Map<InvoiceId, List<Settled>> rows = plan.undone().stream().collect(Collectors.groupingBy(Settled::item));
        plan.ended().forEach(ahead -> rows.remove(ahead.item()));
        Stream<OnItem> open = rows.entrySet().stream()
                .map(entry -> on(before.get(entry.getKey()), entry.getValue(), plan, again, graceDays));
        List<OnItem> items = Stream.concat(open, plan.ended().stream().map(Effect::ended))
                .sorted(Comparator.comparing(item -> item.id().value()))
                .toList();
        Money none = Money.zero(plan.entry().lines().get(0).amount().currency());
        Money lost = items.stream().filter(OnItem::lost).map(OnItem::discount).reduce(none, Money::plus);
        return new Effect(items, lost, year);
    }

    private static OnItem on(Before item, List<Settled> rows, UndoPlan plan, LocalDate again, int graceDays) {
        Money moves = sum(rows, row -> true);
        Money discount = sum(rows, row -> row.by() == SettlementKind.DISCOUNT);
        Money atPar = sum(rows, row -> row.by() != SettlementKind.CASH && row.by() != SettlementKind.DISCOUNT);
        Becomes becomes = becomes(rows.get(0), plan);
        Money open = becomes == Becomes.CANCELLED ? item.open() : item.open().plus(moves);
        Discount then = Discount.after(
                item.discountable(),
                item.rate(),
                item.discountUntil(),
                item.amount().minus(open),
                item.atPar().minus(atPar),
                item.taken().minus(discount));
        boolean lost = discount.isPositive() && becomes != Becomes.CANCELLED && !then.livesOn(again, graceDays);
        return new OnItem(item.id(), item.reference(), becomes, moves, item.open(), open, discount, lost);
    }

    private static OnItem ended(PaidAhead ahead) {
        Money none = Money.zero(ahead.amount().currency());
        return new OnItem(
                ahead.item(), ahead.reference(), Becomes.ENDED, ahead.amount(), ahead.open(), none, none, false);
    }

    private static Becomes becomes(Settled row, UndoPlan plan) {
        if (!row.of().raises()) {
            return Becomes.FREE;
        }
        if (plan.cancelled().containsKey(row.item())) {
            return Becomes.CANCELLED;
        }
        return plan.held().containsKey(row.item()) ? Becomes.HELD : Becomes.OPEN;
    }

    private static Money sum(List<Settled> rows, Predicate<Settled> which) {
        return rows.stream()
                .filter(which)
                .map(Settled::amount)
                .reduce(Money.zero(rows.get(0).amount().currency()), Money::plus);
    }
}
