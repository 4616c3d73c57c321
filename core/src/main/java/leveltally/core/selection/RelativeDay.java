package leveltally.core.selection;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Refusal;

/** A day as somebody says it: a date, or words that move with the business date. */
public final class RelativeDay {
    private static final Pattern IN = Pattern.compile("in (\\d{1,4}) (days?|weeks?|months?)");
    private static final Pattern AGO = Pattern.compile("(\\d{1,4}) (days?|weeks?|months?) ago");
    private static final Pattern WEEKDAY =
            Pattern.compile("(next )?(monday|tuesday|wednesday|thursday|friday|saturday|sunday)");
    private static final LocalDate FIRST = LocalDate.of(1990, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2199, 12, 31);

    private RelativeDay() {}

    /**
     * {@code 2026-11-20}, {@code today}, {@code tomorrow}, {@code friday} (the first one after today), {@code next
     * friday} (the one of the following Monday-to-Sunday week), {@code in 10 days}, {@code 2 weeks ago}, {@code end of
     * month}, {@code end of next month}.
     *
     * @throws Refusal when it says no day
     */
    public static LocalDate read(String text, LocalDate today) {
        String words = text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
        LocalDate day = find(words, today);
        if (day == null || day.isBefore(FIRST) || day.isAfter(LAST)) {
            throw Refusal.invalid(
                    "day-unreadable",
                    "“" + text.strip() + "” is no day. Write a date such as " + today
                            + ", or “next Friday”, “in 10 days”, “end of month”.");
        }
        return day;
    }

    /** True when the words move with the business date. */
    public static boolean isRelative(String text) {
        return !text.strip().matches("\\d{4}-\\d{2}-\\d{2}");
    }

    private static LocalDate find(String words, LocalDate today) {
        switch (words) {
            case "today":
                return today;
            case "tomorrow":
                return today.plusDays(1);
            case "yesterday":
                return today.minusDays(1);
            case "end of month":
                return today.with(TemporalAdjusters.lastDayOfMonth());
            case "end of next month":
                return today.plusMonths(1).with(TemporalAdjusters.lastDayOfMonth());
            default:
                break;
        }
        Matcher in = IN.matcher(words);
        if (in.matches()) {
            return moved(today, Integer.parseInt(in.group(1)), in.group(2));
        }
        Matcher ago = AGO.matcher(words);
        if (ago.matches()) {
            return moved(today, -Integer.parseInt(ago.group(1)), ago.group(2));
        }
        Matcher weekday = WEEKDAY.matcher(words);
        if (weekday.matches()) {
            DayOfWeek wanted = DayOfWeek.valueOf(weekday.group(2).toUpperCase(Locale.ROOT));
            return weekday.group(1) == null
                    ? today.with(TemporalAdjusters.next(wanted))
                    : today.with(TemporalAdjusters.next(DayOfWeek.MONDAY)).with(TemporalAdjusters.nextOrSame(wanted));
        }
        try {
            return LocalDate.parse(words);
        } catch (DateTimeException noDate) {
            return null;
        }
    }

    private static LocalDate moved(LocalDate day, int by, String unit) {
        if (unit.startsWith("day")) {
            return day.plusDays(by);
        }
        return unit.startsWith("week") ? day.plusWeeks(by) : day.plusMonths(by);
    }
}
