package leveltally.core.ledger;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import leveltally.core.Dates;
import leveltally.core.Refusal;

/** A month of the ledger, open or locked. */
public record Period(YearMonth month, boolean locked) {
    private static final DateTimeFormatter WORDS = DateTimeFormatter.ofPattern("MMMM yyyy", Locale.ENGLISH);

    /** {@code November 2026}. */
    public String inWords() {
        return month.format(WORDS);
    }

    /** @throws Refusal when it is locked, or the date lies outside it */
    public void mustTake(LocalDate ledgerDate) {
        if (!YearMonth.from(ledgerDate).equals(month)) {
            throw new IllegalArgumentException(ledgerDate + " does not lie in " + month);
        }
        if (locked) {
            throw Refusal.invalidField(
                    "period-locked",
                    "ledgerDate",
                    inWords() + " is locked, so nothing can be dated " + Dates.inWords(ledgerDate)
                            + ". Choose a day in an open month, or ask the controller to unlock it.");
        }
    }
}
