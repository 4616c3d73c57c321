package leveltally.core.direct;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A payment that falls due again and again: rent, a lease. Each time it is proposed; nothing pays it by itself.
 *
 * @param reference what the payee reads; {@code {month}} stands for the month of the day, {@code {year}} for its year
 * @param said what it is for, see {@link leveltally.core.batches.Said}
 * @param first the day of the first time
 * @param until no time falls after it; null for as long as it is not ended
 */
public record Schedule(
        String name,
        String reference,
        String said,
        Money amount,
        Rhythm rhythm,
        LocalDate first,
        @Nullable LocalDate until) {
    /** What lies further back is a slip of the finger, or belongs to years that were reported. */
    private static final int FURTHEST_BACK = 366;

    /** Nor is a first day agreed on longer ahead than this, or anything paid for longer than a lease of land. */
    private static final int MOST_YEARS_AHEAD = 5;

    private static final int MOST_YEARS = 100;

    private static final int MOST_NAME = 80;
    private static final int MOST_REFERENCE = 40;

    /** @throws Refusal naming the field that cannot be so */
    public Schedule {
        name = name.strip();
        reference = reference.strip();
        said = said.strip();
        refuseUnless(
                !name.isEmpty() && name.length() <= MOST_NAME,
                "name",
                "Give it a name that others will know it by, in at most " + MOST_NAME + " characters.");
        refuseUnless(
                !reference.isEmpty() && named(reference, LocalDate.EPOCH).length() <= MOST_REFERENCE,
                "reference",
                "Say what the payee shall read, in at most " + MOST_REFERENCE + " characters.");
        refuseUnless(amount.isPositive(), "amount", "Something above zero is paid each time.");
        refuseUnless(
                until == null || !until.isBefore(first),
                "until",
                "It ends before its first day, " + Dates.inWords(first) + ". Choose a later end, or none.");
        refuseUnless(
                until == null || until.getYear() - first.getYear() <= MOST_YEARS,
                "until",
                "It goes on for more than " + MOST_YEARS + " years. Choose an earlier end, or none.");
    }

    /**
     * The first day of one that begins now.
     *
     * @throws Refusal when it lies too far back or ahead
     */
    public static LocalDate beginning(LocalDate first, LocalDate today) {
        refuseUnless(
                !first.isBefore(today.minusDays(FURTHEST_BACK)),
                "first",
                Dates.inWords(first) + " lies more than a year back. Name the next day that is to be paid.");
        refuseUnless(
                !first.isAfter(today.plusYears(MOST_YEARS_AHEAD)),
                "first",
                "The first day lies more than " + MOST_YEARS_AHEAD
                        + " years ahead. Name the next day that is to be paid.");
        return first;
    }

    /**
     * Takes the place of one that goes on. Its days are the same, or begin after the last that was dealt with: days that are
     * counted anew would bring up again what was paid.
     *
     * @param dealtWith the last day of it that was paid or passed over; null while none was
     * @throws Refusal when a day could come up twice
     */
    public Schedule inPlaceOf(Schedule before, @Nullable LocalDate dealtWith) {
        boolean same = first.equals(before.first) && rhythm == before.rhythm;
        refuseUnless(
                same || dealtWith == null || first.isAfter(dealtWith),
                "first",
                "What was due on " + (dealtWith == null ? "" : Dates.inWords(dealtWith))
                        + " is paid or passed over already, and would come up once more. With another first day or rhythm,"
                        + " name a first day after that.");
        return this;
    }

    /** Its days up to and with {@code last}, the earliest first. */
    public List<LocalDate> daysTo(LocalDate last) {
        LocalDate end = until != null && until.isBefore(last) ? until : last;
        return times().takeWhile(day -> !day.isAfter(end)).toList();
    }

    /** Whether one of its times falls on this day. */
    public boolean fallsOn(LocalDate day) {
        // a day in another age is none, and is not counted up to
        return day.getYear() - first.getYear() <= MOST_YEARS && daysTo(day).contains(day);
    }

    private Stream<LocalDate> times() {
        return IntStream.iterate(0, n -> n + 1).mapToObj(n -> rhythm.after(first, n));
    }

    /** What the payee reads on the payment of this day. */
    public String referenceOn(LocalDate day) {
        return named(reference, day);
    }

    private static String named(String pattern, LocalDate day) {
        return pattern.replace("{month}", day.toString().substring(0, 7))
                .replace("{year}", String.valueOf(day.getYear()));
    }

    private static void refuseUnless(boolean right, String field, String sentence) {
        if (!right) {
            throw Refusal.invalidField("schedule-" + field, field, sentence);
        }
    }
}
