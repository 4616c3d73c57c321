package leveltally.server.clearing;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.server.clearing.NoticeOutcomes.Back;
import leveltally.server.clearing.NoticeRows.Waiting;
import leveltally.server.electronic.Carried;
import leveltally.server.electronic.CarriedPayments;
import leveltally.server.voiding.Wanted;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Deals with notices that wait. Payments of the ledger that came back are reversed together, some hundred in a transaction; all
 * else, and whatever cannot go with the others, by itself, so that none holds up another.
 */
@Component
class NoticeDealing {
    private final NoticeRows rows;
    private final CarriedPayments payments;
    private final NoticeOutcomes outcomes;
    private final TransactionTemplate each;

    NoticeDealing(NoticeRows rows, CarriedPayments payments, NoticeOutcomes outcomes, TransactionTemplate each) {
        this.rows = rows;
        this.payments = payments;
        this.outcomes = outcomes;
        this.each = each;
    }

    /** @return of how many something came; the others wait, and say why */
    int all(Actor by, List<Long> ids) {
        int done = 0;
        for (int from = 0; from < ids.size(); from += Wanted.MOST) {
            done += some(by, ids.subList(from, Math.min(ids.size(), from + Wanted.MOST)));
        }
        return done;
    }

    private int some(Actor by, List<Long> ids) {
        if (ids.size() == 1) {
            return one(by, ids.get(0)) ? 1 : 0;
        }
        Set<Long> together;
        try {
            together = Objects.requireNonNull(each.execute(status -> reverse(by, ids)));
        } catch (Refusal ofOne) {
            // whose it is, is found by halves
            int half = ids.size() / 2;
            return some(by, ids.subList(0, half)) + some(by, ids.subList(half, ids.size()));
        }
        int alone = (int) ids.stream()
                .filter(id -> !together.contains(id))
                .filter(id -> one(by, id))
                .count();
        return together.size() + alone;
    }

    /** Reverses all that are plainly reversed, the first of several about one payment; answers which. */
    private Set<Long> reverse(Actor by, List<Long> ids) {
        Map<PaymentId, Waiting> about = new LinkedHashMap<>();
        for (Waiting notice : rows.lock(ids)) {
            Optional.ofNullable(notice.told().payment())
                    .ifPresent(payment -> about.putIfAbsent(new PaymentId(payment), notice));
        }
        Map<PaymentId, Back> backs = new LinkedHashMap<>();
        for (Carried carried : payments.of(about.keySet())) {
            Back back = new Back(about.get(carried.payment()).told(), carried);
            if (back.isPlain()) {
                backs.put(carried.payment(), back);
            }
        }
        if (backs.isEmpty()) {
            return Set.of();
        }
        Map<Long, String> said = new LinkedHashMap<>();
        outcomes.reversed(by, backs)
                .forEach((payment, words) -> said.put(about.get(payment).id(), words));
        rows.done(by, "DONE", said);
        return new HashSet<>(said.keySet());
    }

    /**
     * Deals with one in a transaction of its own.
     *
     * @return whether something came of it; otherwise it waits, and says why
     */
    boolean one(Actor by, long id) {
        try {
            return Boolean.TRUE.equals(each.execute(status -> {
                Optional<Waiting> waiting = rows.lock(List.of(id)).stream().findFirst();
                waiting.ifPresent(notice -> rows.done(by, "DONE", Map.of(id, outcomes.of(by, notice))));
                return waiting.isPresent();
            }));
        } catch (Refusal refused) {
            each.executeWithoutResult(status -> rows.stays(id, refused.sentence()));
            return false;
        }
    }
}
