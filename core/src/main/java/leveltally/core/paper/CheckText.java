package leveltally.core.paper;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.DateStyle;
import leveltally.core.batches.Claim;
import leveltally.core.batches.Stub;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Everything that is read on one check and its stubs. It is kept as it was printed, so that a copy years later shows the
 * company, the bank and the payee of the day. What only machines read, the MICR line, belongs to the {@link Paper}.
 *
 * @param number null while it has none
 * @param dates how the payee wants dates written; null for the layout's own way
 * @param called the reference of a payment without paper; empty for a check
 */
public record CheckText(
        Payer payer,
        String payee,
        List<String> address,
        Money amount,
        LocalDate checkDate,
        @Nullable Long number,
        Stub stub,
        @Nullable DateStyle dates,
        String called) {

    /** One of a check: its number says what it is called. */
    public CheckText(
            Payer payer,
            String payee,
            List<String> address,
            Money amount,
            LocalDate checkDate,
            @Nullable Long number,
            Stub stub,
            @Nullable DateStyle dates) {
        this(payer, payee, address, amount, checkDate, number, stub, dates, "");
    }

    /**
     * The company and its bank, as the check names them.
     *
     * @param currencyWord ends the amount in words
     * @param logo null for none
     * @param secondAbove the largest amount that one person signs alone; null for any
     */
    public record Payer(
            String company,
            List<String> address,
            String bank,
            String currencyWord,
            String validity,
            @Nullable Picture logo,
            @Nullable Money secondAbove) {}

    /** The same on another number. */
    public CheckText numbered(long now) {
        return new CheckText(payer, payee, address, amount, checkDate, now, stub, dates, called);
    }

    /** The same from another company, or with another logo. */
    public CheckText withPayer(Payer other) {
        return new CheckText(other, payee, address, amount, checkDate, number, stub, dates, called);
    }

    /** The same to somebody else. */
    public CheckText withPayee(String other) {
        return new CheckText(payer, other, address, amount, checkDate, number, stub, dates, called);
    }

    /** The same for something else. */
    public CheckText withPayment(Money other, Stub listed) {
        return new CheckText(payer, payee, address, other, checkDate, number, listed, dates, called);
    }

    /** The same of a payment without paper, which is called so. */
    public CheckText called(String reference) {
        return new CheckText(payer, payee, address, amount, checkDate, null, stub, dates, reference);
    }

    /** What its number or reference is; empty while it has none. */
    String numberOrReference() {
        return number == null ? called : String.valueOf(number);
    }

    DateStyle dates(CheckLayout layout) {
        return dates == null ? layout.dates() : dates;
    }

    /** Whether two people have to sign it. */
    public boolean needsSecond() {
        return payer.secondAbove() != null && amount.compareTo(payer.secondAbove()) > 0;
    }

    /** What a claim's check says. */
    public static CheckText of(
            Payer payer,
            Claim claim,
            LocalDate checkDate,
            @Nullable Long number,
            Stub stub,
            @Nullable DateStyle dates) {
        return new CheckText(
                payer,
                claim.remitTo().payee(),
                claim.remitTo().lines(),
                claim.amount(),
                checkDate,
                number,
                stub,
                dates);
    }
}
