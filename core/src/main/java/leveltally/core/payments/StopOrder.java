package leveltally.core.payments;

import java.time.LocalDate;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * The stop of a payment: asked of its bank, and kept by it once it confirmed that.
 *
 * @param confirmedOn the bank's day; null until it confirmed
 * @param reference the bank's; empty until it confirmed
 * @param expiresOn the last day on which the bank keeps to it; null where it never ends
 */
public record StopOrder(
        LocalDate askedOn,
        @Nullable LocalDate confirmedOn,
        String reference,
        @Nullable LocalDate expiresOn) {
    /** So many days before its last one a stop is seen to end. */
    public static final int WARNED_DAYS = 30;

    private static final int LONGEST_REFERENCE = 60;

    public static StopOrder asked(LocalDate on) {
        return new StopOrder(on, null, "", null);
    }

    /**
     * As the bank confirmed it, or confirmed it anew.
     *
     * @throws Refusal when the days do not follow each other, or there is no reference
     */
    public StopOrder confirmed(LocalDate on, String typed, @Nullable LocalDate until, LocalDate today) {
        String given = typed.strip();
        if (given.isEmpty() || given.length() > LONGEST_REFERENCE) {
            throw Refusal.invalidField(
                    "stop-reference",
                    "reference",
                    "Type the bank's reference for the stop, in at most " + LONGEST_REFERENCE + " characters.");
        }
        if (on.isBefore(askedOn) || on.isAfter(today)) {
            throw Refusal.invalidField(
                    "stop-confirmed",
                    "on",
                    "The bank confirmed it on a day from " + Dates.inWords(askedOn) + ", when it was asked, to today, "
                            + Dates.inWords(today) + ".");
        }
        if (until != null && until.isBefore(on)) {
            throw Refusal.invalidField(
                    "stop-expires",
                    "until",
                    "A stop ends on the day it was confirmed or later. Leave it empty if it never ends.");
        }
        return new StopOrder(askedOn, on, given, until);
    }

    public boolean isExpired(LocalDate today) {
        return expiresOn != null && expiresOn.isBefore(today);
    }

    /** True where somebody should look: the bank has not confirmed it, or it ends soon, or has. */
    public boolean needsALook(LocalDate today) {
        return confirmedOn == null
                || (expiresOn != null && expiresOn.minusDays(WARNED_DAYS).isBefore(today));
    }

    /** Where it stands, in words. */
    public String inWords(LocalDate today) {
        if (confirmedOn == null) {
            return "stop asked on " + Dates.inWords(askedOn) + ", not confirmed by the bank";
        }
        if (expiresOn == null) {
            return "stop confirmed, " + reference;
        }
        return isExpired(today)
                ? "stop ended on " + Dates.inWords(expiresOn) + ": the bank may pay it"
                : "stop until " + Dates.inWords(expiresOn) + ", " + reference;
    }
}
