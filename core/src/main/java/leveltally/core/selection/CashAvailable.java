package leveltally.core.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The cash a new batch may use, explained line by line: ledger cash up to the check date − payments already posted with a
 * later ledger date + cash movements brought in that the ledger does not have yet − unposted payments of other live
 * batches − the floor the company keeps.
 *
 * @param lines the amounts as they are added; what lowers the sum is negative
 */
public record CashAvailable(List<Line> lines, Money available) {

    /** One step of the sum, with what it rests on. */
    public record Line(String words, String detail, Money amount) {}

    /**
     * What is known of an account on a check date.
     *
     * @param postedLater what was posted with a ledger date after the check date
     * @param lastMovement the date of the last cash movement brought in; null for none
     * @param batches how many other live batches have unposted payments
     */
    public record Known(
            LocalDate checkDate,
            Money ledgerCash,
            Money postedLater,
            int paymentsLater,
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
                        "Payments posted with a later ledger date",
                        known.paymentsLater() == 0
                                ? "none"
                                : known.paymentsLater() + (known.paymentsLater() == 1 ? " payment" : " payments"),
                        known.postedLater().negated()),
                new Line(
                        "Cash movements the ledger does not have yet",
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
