package leveltally.core.direct;

import java.time.LocalDate;

/** How often a payment falls due. */
public enum Rhythm {
    WEEKLY("every week"),
    TWO_WEEKS("every two weeks"),
    MONTHLY("every month"),
    QUARTERLY("every three months"),
    YEARLY("every year");

    private final String words;

    Rhythm(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /**
     * The day of one time.
     *
     * @param first the day of the first time; its day of the month stands, or the month's last where there is none
     * @param times how many times after the first; 0 for the first
     */
    public LocalDate after(LocalDate first, int times) {
        return switch (this) {
            case WEEKLY -> first.plusWeeks(times);
            case TWO_WEEKS -> first.plusWeeks(2L * times);
            case MONTHLY -> first.plusMonths(times);
            case QUARTERLY -> first.plusMonths(3L * times);
            case YEARLY -> first.plusYears(times);
        };
    }
}
