package leveltally.core.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The cash a new batch may use, explained line by line: ledger cash up to the check date + cash movements brought in −
 * unposted payments of other live batches − the floor the company keeps.
 *
 * @param lines the amounts as they are added; what lowers the sum is negative
 */
public record CashAvailable(List<Line> lines, Money available) {

    /** One step of the sum, with what it rests on. */
    public record Line(String words, String detail, Money amount) {}

    /**
     * What is known of an account on a check date.
     *
     * @param lastMovement the date of the last cash movement brought in; null for none
     * @param batches how many other live batches have unposted payments
     */
    public record Known(
            LocalDate checkDate,
            Money ledgerCash,
            Money movements,
            @Nullable LocalDate lastMovement,
            Money unposted,
            int batches,
            Money floor) {}

    public static CashAvailable of(Known known) {
        LocalDate last = known.lastMovement();
        List<Line> lines = List.of(
                new Line("Ledger cash", "up to " + Dates.inWords(known.checkDate()), known.ledgerCash()),
                new Line(
                        "Cash movements brought in",
                        last == null ? "none yet" : "the last of " + Dates.inWords(last),
                        known.movements()),
                new Line(
                        "Unposted payments of other batches",
                        known.batches() == 0
                                ? "none"
                                : known.batches() + (known.batches() == 1 ? " live batch" : " live batches"),
                        known.unposted().negated()),
                new Line("The floor the company keeps", "", known.floor().negated()));
        Money sum = Money.sum(
                lines.stream().map(Line::amount).toList(), known.floor().currency());
        return new CashAvailable(lines, sum);
    }
}
