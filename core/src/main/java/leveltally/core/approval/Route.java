package leveltally.core.approval;

import java.util.List;
import java.util.Set;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;

/**
 * A way to an approval, and what asks for it.
 *
 * @param accounts the bank accounts it is for; empty for all
 * @param totalOver a batch whose total is above the limit of its currency asks for it
 * @param paymentOver a batch with a payment above the limit of its currency asks for it
 * @param marks a batch with a payment so marked asks for it
 * @param steps in their order, at least one
 */
public record Route(
        String name,
        Set<BankAccountId> accounts,
        List<Money> totalOver,
        List<Money> paymentOver,
        Set<MarkKind> marks,
        List<Step> steps) {
    public Route {
        accounts = Set.copyOf(accounts);
        totalOver = List.copyOf(totalOver);
        paymentOver = List.copyOf(paymentOver);
        marks = Set.copyOf(marks);
        steps = List.copyOf(steps);
        if (steps.isEmpty()) {
            throw new IllegalArgumentException("route " + name + ": it has no step");
        }
    }

    /** Nothing must ask for it: every batch may take it. */
    public boolean isForAll() {
        return totalOver.isEmpty() && paymentOver.isEmpty() && marks.isEmpty();
    }

    boolean isFor(BankAccountId account) {
        return accounts.isEmpty() || accounts.contains(account);
    }
}
