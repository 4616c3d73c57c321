package leveltally.core;

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
}
