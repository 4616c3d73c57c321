package leveltally.core.selection;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.money.Money;
import leveltally.core.vendors.Reach;
import org.jspecify.annotations.Nullable;

/** Whether one invoice or credit may stand in a batch at all, whatever else is chosen: the first reason against it. */
public final class Eligibility {
    private Eligibility() {}

    /** One rule: what it says when it applies, null when it does not. */
    private interface Rule<T> {
        @Nullable
        String against(T candidate, Criteria criteria);
    }

    private record Named<T>(LeftOutReason reason, Rule<T> rule) {}

    private static final List<Named<Candidate>> INVOICE = List.of(
            new Named<>(LeftOutReason.HELD_INVOICE, (one, to) -> one.holdReason()),
            new Named<>(LeftOutReason.HELD_VENDOR, (one, to) -> one.payee().holdReason()),
            new Named<>(LeftOutReason.IN_ANOTHER_BATCH, (one, to) -> one.reservedBy()),
            new Named<>(
                    LeftOutReason.OTHER_CURRENCY,
                    (one, to) -> otherCurrency(one.invoice().open(), to)),
            new Named<>(
                    LeftOutReason.OTHER_METHOD,
                    (one, to) -> one.payee().method() == to.method() ? null : otherMethod(one.payee(), to)),
            missing(Reach.Missing.ADDRESS),
            missing(Reach.Missing.BANK_DETAILS),
            missing(Reach.Missing.CONFIRMATION),
            missing(Reach.Missing.ROUTING_NUMBER),
            new Named<>(
                    LeftOutReason.DATED_AFTER_CHECK_DATE,
                    (one, to) -> datedAfter(one.invoice().invoiceDate(), to)),
            new Named<>(
                    LeftOutReason.ENTERED_LATER,
                    (one, to) -> enteredLater(one.invoice().days(), to)));

    private static final List<Named<Candidate>> INVOICE_ANY_WAY = INVOICE.stream()
            .filter(one -> one.reason() != LeftOutReason.OTHER_METHOD)
            .toList();

    private static final List<Named<CreditCandidate>> CREDIT = List.of(
            new Named<>(LeftOutReason.HELD_INVOICE, (one, to) -> one.holdReason()),
            new Named<>(LeftOutReason.IN_ANOTHER_BATCH, (one, to) -> one.reservedBy()),
            new Named<>(
                    LeftOutReason.OTHER_CURRENCY,
                    (one, to) -> otherCurrency(one.credit().open(), to)),
            new Named<>(
                    LeftOutReason.DATED_AFTER_CHECK_DATE,
                    (one, to) -> datedAfter(one.credit().date(), to)),
            new Named<>(
                    LeftOutReason.ENTERED_LATER,
                    (one, to) -> enteredLater(one.credit().days(), to)),
            new Named<>(LeftOutReason.NOT_USABLE_YET, (one, to) -> notUsableYet(one.credit(), to)));

    /**
     * Why an invoice cannot be paid by such a batch; empty when it can.
     *
     * @param byHand somebody adds it by hand: then any way will do by which the vendor may be paid
     */
    public static Optional<Decision.LeftOut> whyNot(Candidate invoice, Criteria criteria, boolean byHand) {
        boolean anyWay = byHand && invoice.payee().alsoBy().contains(criteria.method());
        return first(anyWay ? INVOICE_ANY_WAY : INVOICE, invoice, criteria);
    }

    /** Why a credit cannot reduce a payment of such a batch; empty when it can. */
    public static Optional<Decision.LeftOut> whyNot(CreditCandidate credit, Criteria criteria) {
        return first(CREDIT, credit, criteria);
    }

    private static <T> Optional<Decision.LeftOut> first(List<Named<T>> rules, T candidate, Criteria criteria) {
        for (Named<T> one : rules) {
            String detail = one.rule().against(candidate, criteria);
            if (detail != null) {
                return Optional.of(new Decision.LeftOut(one.reason(), detail));
            }
        }
        return Optional.empty();
    }

    private static @Nullable String otherCurrency(Money open, Criteria criteria) {
        return open.currency().equals(criteria.currency())
                ? null
                : open.currency().getCurrencyCode();
    }

    private static String otherMethod(Payee payee, Criteria criteria) {
        String preferred = payee.method().words();
        return payee.alsoBy().contains(criteria.method())
                ? preferred + ", and " + criteria.method().words() + " where somebody adds it by hand"
                : preferred;
    }

    private static Named<Candidate> missing(Reach.Missing what) {
        return new Named<>(
                LeftOutReason.of(what),
                (one, to) -> one.payee()
                                .reach()
                                .missingFor(to.method())
                                .filter(what::equals)
                                .isPresent()
                        ? ""
                        : null);
    }

    private static @Nullable String datedAfter(LocalDate dated, Criteria criteria) {
        return dated.isAfter(criteria.checkDate()) ? "dated " + Dates.inWords(dated) : null;
    }

    private static @Nullable String enteredLater(LedgerDays days, Criteria criteria) {
        return days.reach(criteria.ledgerDate()) ? null : days.inWords();
    }

    private static @Nullable String notUsableYet(OpenCredit credit, Criteria criteria) {
        LocalDate from = credit.usableFrom();
        return from != null && from.isAfter(criteria.checkDate()) ? "from " + Dates.inWords(from) : null;
    }
}
