package leveltally.core;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Business dates in words, as every sentence of ours writes them. */
public final class Dates {
    private static final DateTimeFormatter LONG = DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.ENGLISH);

    private Dates() {}

    /** {@code Thu 12 Nov 2026}. */
    public static String inWords(LocalDate date) {
        return date.format(LONG);
    }

    /** The same, with a word beside a day on which no bank works; terms dates are shown so and never shifted. */
    public static String withBankingDay(LocalDate date) {
        boolean weekend = date.getDayOfWeek() == DayOfWeek.SATURDAY || date.getDayOfWeek() == DayOfWeek.SUNDAY;
        return inWords(date) + (weekend ? ", no banking day" : "");
    }
}
