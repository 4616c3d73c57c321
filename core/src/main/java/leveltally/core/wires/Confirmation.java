package leveltally.core.wires;

import java.time.LocalDate;
import java.util.Currency;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.outside.OutsideNumber;

/**
 * What the bank said of a wire that was ordered there.
 *
 * @param bankReference what it called it, in the form it is kept in
 * @param fee what it asked for it, beside the amount; zero for nothing
 * @param sentOn the day it sent it
 */
public record Confirmation(String bankReference, Money fee, LocalDate sentOn) {
    /**
     * As somebody types it.
     *
     * @param fee empty for nothing
     * @param listed the day it was put on the list: the bank sends nothing before it is ordered
     * @throws Refusal naming the field that cannot be so
     */
    public static Confirmation typed(
            String reference, String fee, Currency currency, LocalDate sentOn, LocalDate listed, LocalDate today) {
        String kept;
        try {
            kept = OutsideNumber.ofReference(reference);
        } catch (Refusal none) {
            throw Refusal.invalidField("wire-reference", "bankReference", none.sentence());
        }
        Money asked = fee.isBlank() ? Money.zero(currency) : Money.typed(fee, currency, "fee");
        if (asked.isNegative()) {
            throw Refusal.invalidField(
                    "wire-fee", "fee", "A fee is not below zero. Leave it empty where there was none.");
        }
        if (sentOn.isBefore(listed) || sentOn.isAfter(today)) {
            throw Refusal.invalidField(
                    "wire-day",
                    "sentOn",
                    "The bank sent it between " + Dates.inWords(listed) + ", when it was put on the list, and today, "
                            + Dates.inWords(today) + ".");
        }
        return new Confirmation(kept, asked, sentOn);
    }
}
