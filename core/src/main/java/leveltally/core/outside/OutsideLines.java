package leveltally.core.outside;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.terms.PartPayment;

/**
 * What a payment made elsewhere settled. The money is gone, so the amount is a fact: it is spread over the invoices it was
 * for, earliest due first.
 */
public final class OutsideLines {
    private OutsideLines() {}

    /**
     * Discounts that lived on the day count as taken as long as the amount reaches no further than what is left to pay with
     * them; a larger one was paid without.
     *
     * @param paid above zero
     * @throws Refusal when it is more than all of them owe, or leaves one of them without a cent
     */
    public static List<ClaimLine> settling(Money paid, List<OpenInvoice> invoices, LocalDate paidOn, int graceDays) {
        Money none = Money.zero(paid.currency());
        Money owed = Money.sum(invoices.stream().map(OpenInvoice::open).toList(), paid.currency());
        Money net = Money.sum(
                invoices.stream()
                        .map(one -> one.payInFull(paidOn, graceDays).cash())
                        .toList(),
                paid.currency());
        String references = invoices.stream().map(OpenInvoice::reference).collect(Collectors.joining(", "));
        if (paid.compareTo(owed) > 0) {
            throw refused(references + (invoices.size() == 1 ? " owes " : " owe ") + owed + ", less than the " + paid
                    + " that was paid. Name what else it was for.");
        }
        boolean withDiscount = paid.compareTo(net) <= 0;
        List<ClaimLine> lines = new ArrayList<>();
        Money left = paid;
        for (OpenInvoice invoice : inOrder(invoices)) {
            if (!left.isPositive()) {
                throw refused(paid + " is used up before " + invoice.reference() + " gets any of it. Leave "
                        + invoice.reference() + " out, or look at the amount again.");
            }
            Money most = invoice.open();
            Money part = left.min(
                    withDiscount ? most.min(invoice.payInFull(paidOn, graceDays).cash()) : most);
            PartPayment payment = withDiscount ? invoice.pay(part, paidOn, graceDays) : new PartPayment(part, none);
            lines.add(new ClaimLine.Invoice(
                    invoice.id(), invoice.reference(), payment.settled(), payment.discount(), none));
            left = left.minus(part);
        }
        return lines;
    }

    /**
     * The one invoice that an amount tells of, because it owes exactly that much, with its discount or without.
     *
     * @throws Refusal when none does, or several do
     */
    public static OpenInvoice toldBy(Money paid, List<OpenInvoice> open, LocalDate paidOn, int graceDays) {
        List<OpenInvoice> fitting = open.stream()
                .filter(one -> one.open().equals(paid)
                        || one.payInFull(paidOn, graceDays).cash().equals(paid))
                .toList();
        if (fitting.size() == 1) {
            return fitting.get(0);
        }
        throw Refusal.invalidField(
                "outside-said",
                "said",
                fitting.isEmpty()
                        ? "No open invoice of this vendor comes to " + paid
                                + ". Say which ones it was for by their references, or name an account."
                        : paid + " fits "
                                + fitting.stream()
                                        .limit(5)
                                        .map(OpenInvoice::reference)
                                        .collect(Collectors.joining(" and "))
                                + ". Say which of them it was for.");
    }

    private static List<OpenInvoice> inOrder(List<OpenInvoice> invoices) {
        return invoices.stream()
                .sorted(Comparator.comparing(OpenInvoice::dueDate)
                        .thenComparing(one -> one.id().value()))
                .toList();
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("outside-amount", "amount", sentence);
    }
}
