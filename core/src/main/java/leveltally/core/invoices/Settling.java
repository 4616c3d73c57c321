package leveltally.core.invoices;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.terms.PartPayment;
import org.jspecify.annotations.Nullable;

/**
 * What one payment does to the invoices it is for. Credits go first, oldest first, against the invoices due first; they
 * settle at par and lower the discountable part first. What remains is paid, in full or in part, with its discount.
 *
 * @param lines one for each invoice, in the order asked
 * @param uses the credits that were needed, oldest first
 */
public record Settling(List<Line> lines, List<Use> uses) {

    /** An invoice to pay; {@code part} is the cash typed for it, null for all. */
    public record Owed(OpenInvoice invoice, @Nullable Money part) {}

    /** What becomes of one invoice: credit + cash + discount is settled on it. */
    public record Line(OpenInvoice invoice, Money credit, PartPayment payment) {
        public Money settled() {
            return credit.plus(payment.settled());
        }
    }

    /** How much of a credit is used up. */
    public record Use(OpenCredit credit, Money used) {}

    /** The order in which credits reduce invoices. */
    public static final Comparator<OpenInvoice> DUE_FIRST = Comparator.comparing(OpenInvoice::dueDate)
            .thenComparing(invoice -> invoice.id().value());
    /** The order in which credits are used. */
    public static final Comparator<OpenCredit> OLDEST_FIRST = Comparator.comparing(OpenCredit::date)
            .thenComparing(credit -> credit.id().value());

    /**
     * @param owed not empty, all of one currency, as the credits
     * @throws leveltally.core.Refusal when the cash typed for an invoice is more than what is left to pay on it
     */
    public static Settling of(List<Owed> owed, List<OpenCredit> credits, LocalDate checkDate, int graceDays) {
        Credits used = Credits.against(owed.stream().map(Owed::invoice).toList(), credits);
        List<Line> lines = new ArrayList<>(owed.size());
        for (Owed one : owed) {
            OpenInvoice invoice = one.invoice();
            Money credit = used.on(invoice);
            OpenInvoice rest = invoice.lessCredit(credit);
            lines.add(new Line(invoice, credit, payment(rest, one.part(), checkDate, graceDays)));
        }
        return new Settling(List.copyOf(lines), used.uses());
    }

    private static PartPayment payment(OpenInvoice rest, @Nullable Money typed, LocalDate checkDate, int graceDays) {
        PartPayment whole = rest.payInFull(checkDate, graceDays);
        if (typed != null && whole.cash().isZero()) {
            throw Refusal.invalidField(
                    "amount-over-net",
                    "cash",
                    "Credits settle all of " + rest.reference() + ", so " + typed
                            + " cannot be paid on it. Use fewer credits, or pay all that is left.");
        }
        return typed == null ? whole : rest.pay(typed, checkDate, graceDays);
    }

    /**
     * Invoices against credits, to exactly zero: as much of both as the smaller side allows, at par, without discount
     * and without cash.
     */
    public static Settling offset(List<OpenInvoice> invoices, List<OpenCredit> credits) {
        Credits used = Credits.against(invoices, credits);
        List<Line> lines = invoices.stream()
                .filter(invoice -> used.on(invoice).isPositive())
                .map(invoice -> {
                    Money none = Money.zero(invoice.open().currency());
                    return new Line(invoice, used.on(invoice), new PartPayment(none, none));
                })
                .toList();
        return new Settling(lines, used.uses());
    }

    public Money cash() {
        return sum(lines.stream().map(line -> line.payment().cash()).toList());
    }

    public Money discount() {
        return sum(lines.stream().map(line -> line.payment().discount()).toList());
    }

    public Money credit() {
        return sum(lines.stream().map(Line::credit).toList());
    }

    private Money sum(List<Money> amounts) {
        return Money.sum(amounts, lines.get(0).invoice().open().currency());
    }

    /** Credits laid against invoices. */
    private record Credits(Map<InvoiceId, Money> onInvoices, List<Use> uses) {
        static Credits against(List<OpenInvoice> invoices, List<OpenCredit> credits) {
            Map<InvoiceId, Money> on = new HashMap<>();
            List<Use> uses = new ArrayList<>();
            if (credits.isEmpty()) {
                return new Credits(on, uses);
            }
            List<OpenInvoice> waiting = invoices.stream().sorted(DUE_FIRST).toList();
            int at = 0;
            for (OpenCredit credit : credits.stream().sorted(OLDEST_FIRST).toList()) {
                Money left = credit.open();
                while (left.isPositive() && at < waiting.size()) {
                    OpenInvoice invoice = waiting.get(at);
                    Money before = on.getOrDefault(invoice.id(), Money.zero(left.currency()));
                    Money take = left.min(invoice.open().minus(before));
                    on.put(invoice.id(), before.plus(take));
                    left = left.minus(take);
                    if (before.plus(take).equals(invoice.open())) {
                        at++;
                    }
                }
                Money used = credit.open().minus(left);
                if (used.isPositive()) {
                    uses.add(new Use(credit, used));
                }
            }
            return new Credits(on, List.copyOf(uses));
        }

        Money on(OpenInvoice invoice) {
            Money none = Money.zero(invoice.open().currency());
            return onInvoices.getOrDefault(invoice.id(), none);
        }
    }
}
