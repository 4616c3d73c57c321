package leveltally.core.selection;

import java.util.Arrays;
import java.util.List;
import leveltally.core.money.Money;

/**
 * What each way of giving out the cash comes to, over the same queue.
 *
 * @param waiting what each claim of the queue asks for
 */
record WaysToSpend(Criteria criteria, List<Selection.Queued> queue, List<CashLine.Waiting> waiting) {
    /** The four ways side by side; empty without a limit. */
    List<Selection.WayOutcome> all() {
        Money limit = criteria.paying().limit();
        if (limit == null) {
            return List.of();
        }
        return Arrays.stream(CashWay.values()).map(way -> outcome(way, limit)).toList();
    }

    private Selection.WayOutcome outcome(CashWay way, Money limit) {
        Money none = Money.zero(criteria.currency());
        Money smallest = criteria.paying().smallest();
        CashLine chosen = CashLine.choose(way, waiting, limit, smallest == null ? none : smallest);
        Money spends = none;
        Money saves = none;
        Money lateCash = none;
        int count = 0;
        int late = 0;
        for (int i = 0; i < waiting.size(); i++) {
            CashLine.Waiting claim = waiting.get(i);
            if (chosen.taken()[i]) {
                count++;
                spends = spends.plus(claim.amount());
                saves = saves.plus(claim.discount());
            } else if (i == chosen.part()) {
                Part part = Part.of(queue.get(i).claim(), criteria, chosen.left());
                count++;
                spends = spends.plus(part.cash());
                saves = saves.plus(part.discount());
            } else if (claim.late()) {
                late++;
                lateCash = lateCash.plus(claim.amount());
            }
        }
        return new Selection.WayOutcome(way, count, spends, saves, late, lateCash, chosen.error());
    }
}
