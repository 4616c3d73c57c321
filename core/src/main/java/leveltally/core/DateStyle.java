package leveltally.core;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;

/** How dates are written on paper. */
public enum DateStyle {
    /** {@code Fri 13 Nov 2026}; in lines without the weekday. */
    WORDS("EEE d MMM yyyy", "d MMM yyyy"),
    /** {@code November 13, 2026}. */
    MONTH_FIRST("MMMM d, yyyy", "MMM d, yyyy"),
    /** {@code 11/13/2026}. */
    SLASHES("MM/dd/yyyy", "MM/dd/yyyy"),
    /** {@code 13.11.2026}. */
    POINTS("dd.MM.yyyy", "dd.MM.yyyy"),
    /** {@code 2026-11-13}, ISO 8601. */
    ISO("yyyy-MM-dd", "yyyy-MM-dd"),
    /** {@code Fri 13 Nov 2026}; in lines the day and the month only. */
    NARROW("EEE d MMM yyyy", "d MMM");

    /** Those a person can choose. */
    public static final List<DateStyle> CHOICES = List.of(WORDS, MONTH_FIRST, SLASHES, POINTS, ISO);

    private final DateTimeFormatter alone;
    private final DateTimeFormatter inLines;

    DateStyle(String alone, String inLines) {
        this.alone = DateTimeFormatter.ofPattern(alone, Locale.ENGLISH);
        this.inLines = DateTimeFormatter.ofPattern(inLines, Locale.ENGLISH);
    }

    /** How it is named to choose: by an example. */
    public String words() {
        return alone(LocalDate.of(2026, 11, 13));
    }

    public String alone(LocalDate date) {
        return alone.format(date);
    }

    public String inLines(LocalDate date) {
        return inLines.format(date);
    }
}
