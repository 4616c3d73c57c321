package leveltally.core.ledger;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Set;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.people.Role;

/**
 * A month of the ledger, open or locked.
 *
 * @param closing it is being closed: what is under way is finished in it, and clerks begin nothing new
 */
public record Period(YearMonth month, boolean locked, boolean closing) {
    private static final DateTimeFormatter WORDS = DateTimeFormatter.ofPattern("MMMM yyyy", Locale.ENGLISH);

    /** One that is not being closed. */
    public Period(YearMonth month, boolean locked) {
        this(month, locked, false);
    }

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

    /** Whether it is open, being closed or locked. */
    public String stand() {
        return locked ? "locked" : closing ? "being closed" : "open";
    }

    /** True where somebody with these roles can begin something new in it. */
    public boolean takesNew(Set<Role> roles) {
        return !locked && (!closing || roles.contains(Role.CONTROLLER));
    }

    /** @throws Refusal when it is locked, or is being closed and nobody with these roles begins anything in it */
    public void mustTakeNew(LocalDate ledgerDate, Set<Role> roles) {
        mustTake(ledgerDate);
        if (!takesNew(roles)) {
            throw Refusal.invalidField(
                    "period-closing",
                    "ledgerDate",
                    inWords() + " is being closed, so nothing new is dated " + Dates.inWords(ledgerDate)
                            + ". Choose a day in a month that is open, or ask the controller.");
        }
    }
}
