package leveltally.core.selection;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/** A day as somebody says it: a date, or words that move with the business date. */
public final class RelativeDay {
    private static final Pattern IN = Pattern.compile("in (\\d{1,4}) (days?|weeks?|months?)");
    private static final Pattern AGO = Pattern.compile("(\\d{1,4}) (days?|weeks?|months?) ago");
    private static final Pattern WEEKDAY =
            Pattern.compile("(next )?(mon|tue|wed|thu|fri|sat|sun)(?:day|sday|nesday|rsday|urday)?");
    private static final Pattern DAY_MONTH = Pattern.compile(
            "(?:(?:mon|tue|wed|thu|fri|sat|sun) )?(\\d{1,2}) (jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*(?: (\\d{4}))?");
    private static final List<String> WEEKDAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");
    private static final List<String> MONTHS =
            List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");
    private static final LocalDate FIRST = LocalDate.of(1990, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2199, 12, 31);

    private RelativeDay() {}

    /**
     * {@code 2026-11-20}, {@code 20 nov} (the one nearest to today; a year may follow), {@code today}, {@code tomorrow},
     * {@code friday} or {@code fri} (the first one after today), {@code next
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

    /** True when the words move with the business date; a day of a month is meant as the day it names. */
    public static boolean isRelative(String text) {
        String words = text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
        return !words.matches("\\d{4}-\\d{2}-\\d{2}")
                && !DAY_MONTH.matcher(words).matches();
    }

    private static @Nullable LocalDate find(String words, LocalDate today) {
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
            DayOfWeek wanted = DayOfWeek.of(WEEKDAYS.indexOf(weekday.group(2)) + 1);
            return weekday.group(1) == null
                    ? today.with(TemporalAdjusters.next(wanted))
                    : today.with(TemporalAdjusters.next(DayOfWeek.MONDAY)).with(TemporalAdjusters.nextOrSame(wanted));
        }
        Matcher dayMonth = DAY_MONTH.matcher(words);
        if (dayMonth.matches()) {
            return dayOfMonth(dayMonth, today);
        }
        try {
            return LocalDate.parse(words);
        } catch (DateTimeException noDate) {
            return null;
        }
    }

    private static @Nullable LocalDate dayOfMonth(Matcher words, LocalDate today) {
        int day = Integer.parseInt(words.group(1));
        int month = MONTHS.indexOf(words.group(2)) + 1;
        if (words.group(3) != null) {
            return day(Integer.parseInt(words.group(3)), month, day);
        }
        return Stream.of(-1, 0, 1)
                .map(years -> day(today.getYear() + years, month, day))
                .filter(Objects::nonNull)
                .min(Comparator.comparingLong(one -> Math.abs(ChronoUnit.DAYS.between(today, one))))
                .orElse(null);
    }

    private static @Nullable LocalDate day(int year, int month, int day) {
        try {
            return LocalDate.of(year, month, day);
        } catch (DateTimeException noSuchDay) {
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
