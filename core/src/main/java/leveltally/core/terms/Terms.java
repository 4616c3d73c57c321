package leveltally.core.terms;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * What was agreed about when to pay: a rule for the due date and, with some vendors, an early discount.
 *
 * @param rule how the due date follows from the invoice date
 * @param days days after the rule's anchor ({@link Rule#NET}, {@link Rule#NET_AFTER_MONTH_END}) or the day of the next
 *     month (1–31, cut to the month's last day)
 * @param cutOffDay {@link Rule#DAY_OF_NEXT_MONTH} only: an invoice dated after this day falls into the month after;
 *     null for none
 * @param discountRate 0.02 for 2%; zero for no discount
 * @param discountDays days after the invoice date in which the discount lives
 */
public record Terms(Rule rule, int days, @Nullable Integer cutOffDay, BigDecimal discountRate, int discountDays) {
    /** How the due date follows from the invoice date. */
    public enum Rule {
        NET,
        NET_AFTER_MONTH_END,
        DAY_OF_NEXT_MONTH
    }

    /** The two dates of one invoice; terms dates are never shifted to banking days. */
    public record Schedule(LocalDate dueDate, Optional<LocalDate> discountDate) {}

    public Terms {
        if (days < 0 || discountDays < 0) {
            throw new IllegalArgumentException("terms: days may not be negative");
        }
        if (rule == Rule.DAY_OF_NEXT_MONTH && (days < 1 || days > 31)) {
            throw new IllegalArgumentException("terms: a day of the month lies between 1 and 31, not " + days);
        }
        if (discountRate.signum() < 0 || discountRate.compareTo(BigDecimal.ONE) >= 0) {
            throw new IllegalArgumentException("terms: a discount rate lies between 0 and 1, not " + discountRate);
        }
    }

    public static Terms net(int days) {
        return new Terms(Rule.NET, days, null, BigDecimal.ZERO, 0);
    }

    public static Terms netAfterMonthEnd(int days) {
        return new Terms(Rule.NET_AFTER_MONTH_END, days, null, BigDecimal.ZERO, 0);
    }

    public static Terms dayOfNextMonth(int day, @Nullable Integer cutOffDay) {
        return new Terms(Rule.DAY_OF_NEXT_MONTH, day, cutOffDay, BigDecimal.ZERO, 0);
    }

    /** {@code percent} 2 and {@code withinDays} 10 read “2% 10”. */
    public Terms withDiscount(String percent, int withinDays) {
        return new Terms(rule, days, cutOffDay, new BigDecimal(percent).movePointLeft(2), withinDays);
    }

    public Schedule scheduleFor(LocalDate invoiceDate) {
        Optional<LocalDate> discount =
                discountRate.signum() == 0 ? Optional.empty() : Optional.of(invoiceDate.plusDays(discountDays));
        return new Schedule(dueDate(invoiceDate), discount);
    }

    /**
     * The dates of an invoice that names its own due date; null where it does not.
     *
     * @throws Refusal when it is due before it is dated
     */
    public Schedule scheduleFor(LocalDate invoiceDate, @Nullable LocalDate ownDueDate) {
        Schedule usual = scheduleFor(invoiceDate);
        if (ownDueDate == null) {
            return usual;
        }
        if (ownDueDate.isBefore(invoiceDate)) {
            throw Refusal.invalidField(
                    "due-before-dated",
                    "dueDate",
                    "It cannot be due on " + Dates.inWords(ownDueDate) + ", before its date, "
                            + Dates.inWords(invoiceDate) + ".");
        }
        return new Schedule(ownDueDate, usual.discountDate());
    }

    private LocalDate dueDate(LocalDate invoiceDate) {
        return switch (rule) {
            case NET -> invoiceDate.plusDays(days);
            case NET_AFTER_MONTH_END ->
                invoiceDate.withDayOfMonth(invoiceDate.lengthOfMonth()).plusDays(days);
            case DAY_OF_NEXT_MONTH -> {
                boolean late = cutOffDay != null && invoiceDate.getDayOfMonth() > cutOffDay;
                LocalDate month = invoiceDate.withDayOfMonth(1).plusMonths(late ? 2 : 1);
                yield month.withDayOfMonth(Math.min(days, month.lengthOfMonth()));
            }
        };
    }

    private static final Pattern WORDS = Pattern.compile("(?:(\\d{1,2}(?:\\.\\d{1,3})?)% (\\d{1,3}), ?)?"
            + "(?:net (\\d{1,3})( after month end)?|day (\\d{1,2}) of next month(?:, cut-off day (\\d{1,2}))?)");

    /**
     * Reads what {@link #inWords} writes.
     *
     * @throws IllegalArgumentException when it says no terms
     */
    public static Terms read(String text) {
        Matcher words = WORDS.matcher(text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " "));
        if (!words.matches()) {
            throw new IllegalArgumentException("“" + (text.length() > 40 ? text.substring(0, 40) + "…" : text)
                    + "” are no terms such as “net 30”, “2% 10, net 30”, “net 10 after month end”");
        }
        Terms due = words.group(3) == null
                ? dayOfNextMonth(
                        Integer.parseInt(words.group(5)),
                        words.group(6) == null ? null : Integer.valueOf(words.group(6)))
                : words.group(4) == null
                        ? net(Integer.parseInt(words.group(3)))
                        : netAfterMonthEnd(Integer.parseInt(words.group(3)));
        return words.group(1) == null ? due : due.withDiscount(words.group(1), Integer.parseInt(words.group(2)));
    }

    /**
     * Reads terms somebody typed.
     *
     * @throws Refusal at the field {@code terms} when it says none
     */
    public static Terms typed(String text) {
        try {
            return read(text);
        } catch (IllegalArgumentException none) {
            throw Refusal.invalidField("terms-unreadable", "terms", none.getMessage() + ".");
        }
    }

    /** As a clerk writes it: {@code 2% 10, net 30}. */
    public String inWords() {
        String due = switch (rule) {
            case NET -> "net " + days;
            case NET_AFTER_MONTH_END -> "net " + days + " after month end";
            case DAY_OF_NEXT_MONTH ->
                "day " + days + " of next month" + (cutOffDay == null ? "" : ", cut-off day " + cutOffDay);
        };
        if (discountRate.signum() == 0) {
            return due;
        }
        return discountRate.movePointRight(2).stripTrailingZeros().toPlainString() + "% " + discountDays + ", " + due;
    }
}
