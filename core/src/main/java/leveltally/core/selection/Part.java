package leveltally.core.selection;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;

/** What a claim pays when it is paid in part: its invoices by due date, while the cash lasts. */
record Part(Map<InvoiceId, Decision.Taken> taken, Money cash, Money discount) {
    static Part of(Selection.ClaimDraft claim, Criteria criteria, Money limit) {
        Map<InvoiceId, Decision.Taken> taken = new HashMap<>();
        Money cash = Money.zero(limit.currency());
        Money discount = cash;
        List<Selection.Row> byDue = claim.rows().stream()
                .sorted(Comparator.comparing(
                                (Selection.Row row) -> row.candidate().invoice().dueDate())
                        .thenComparing(row -> row.candidate().invoice().id().value()))
                .toList();
        for (Selection.Row row : byDue) {
            Decision.Taken whole = (Decision.Taken) row.decision();
            Money left = limit.minus(cash);
            if (whole.payment().cash().compareTo(left) <= 0) {
                taken.put(row.candidate().invoice().id(), whole);
                cash = cash.plus(whole.payment().cash());
                discount = discount.plus(whole.payment().discount());
            } else if (left.isPositive()) {
                OpenInvoice rest = row.candidate().invoice().lessCredit(whole.credit());
                var payment = rest.pay(left, criteria.checkDate(), criteria.graceDays());
                taken.put(row.candidate().invoice().id(), new Decision.Taken(whole.credit(), payment, whole.byHand()));
                cash = cash.plus(payment.cash());
                discount = discount.plus(payment.discount());
            }
        }
        return new Part(taken, cash, discount);
    }
}
