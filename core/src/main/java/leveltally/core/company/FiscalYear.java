package leveltally.core.company;

import java.time.Month;
import java.time.YearMonth;
import leveltally.core.Refusal;

/** How a company counts its months: by a year that begins with the first day of {@code first}. */
public record FiscalYear(Month first) {
    public static final FiscalYear OF_THE_CALENDAR = new FiscalYear(Month.JANUARY);

    private static final int MONTHS = 12;
    private static final int CENTURY = 100;

    /** @throws Refusal when the number is that of no month */
    public static FiscalYear beginning(int month) {
        if (month < 1 || month > MONTHS) {
            throw Refusal.invalidField(
                    "first-month", "firstMonth", "The year begins with a month from 1, January, to 12, December.");
        }
        return new FiscalYear(Month.of(month));
    }

    /** {@code month 5 of 2026/27}; where the year is the calendar's, {@code month 11 of 2026}. */
    public String inWords(YearMonth month) {
        int count = Math.floorMod(month.getMonthValue() - first.getValue(), MONTHS) + 1;
        int began = month.getMonthValue() >= first.getValue() ? month.getYear() : month.getYear() - 1;
        return "month " + count + " of " + began
                + (first == Month.JANUARY ? "" : String.format("/%02d", (began + 1) % CENTURY));
    }
}
