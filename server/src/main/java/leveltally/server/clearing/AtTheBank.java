package leveltally.server.clearing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.clearing.Reconciliation.Row;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** How the movements of statements that the ledger does not have stand with each other. */
final class AtTheBank {
    /** @param carrier the movement of a list that this one told again; null where it tells for itself */
    record Moved(long id, @Nullable Long carrier, LocalDate day, String number, String text, Money rest) {}

    /** @param other the movement that was turned, or that of the claim */
    record Pair(
            long id,
            long movement,
            MatchKind kind,
            @Nullable Long other,
            @Nullable Long claim,
            Money amount) {}

    private final List<Row> owed = new ArrayList<>();
    private final List<Row> open = new ArrayList<>();

    AtTheBank(List<Moved> moved, List<Pair> pairs, Money none) {
        Map<Long, Moved> here = new HashMap<>();
        moved.forEach(one -> {
            here.put(one.id(), one);
            if (one.carrier() != null) {
                here.put(one.carrier(), one);
            }
        });
        Map<Long, Money> rest = new HashMap<>();
        moved.forEach(one -> rest.put(one.id(), one.rest()));
        Map<Long, Money> claims = new HashMap<>();
        Map<Long, Pair> claimed = new HashMap<>();
        for (Pair one : pairs) {
            if (one.kind() == MatchKind.CLAIM && here.containsKey(one.movement())) {
                claimed.put(one.id(), one);
                claims.put(one.id(), one.amount());
            }
        }
        for (Pair one : pairs) {
            boolean both = here.containsKey(one.movement()) && one.other() != null && here.containsKey(one.other());
            if (both && one.kind() == MatchKind.TURNED) {
                take(rest, here, one.movement(), one.amount());
            } else if (both && one.kind() == MatchKind.CORRECTION && one.claim() != null) {
                // what was given back ends what was owed
                take(rest, here, one.movement(), one.amount());
                claims.computeIfPresent(one.claim(), (claim, left) -> left.plus(one.amount()));
                Pair claim = claimed.get(one.claim());
                if (claim != null) {
                    take(rest, here, claim.movement(), one.amount().negated());
                }
            }
        }
        claims.forEach((id, left) -> {
            Pair claim = claimed.get(id);
            Moved of = claim == null ? null : here.get(claim.movement());
            if (claim != null && of != null && !left.isZero()) {
                take(rest, here, claim.movement(), left);
                owed.add(row(of, left));
            }
        });
        moved.stream()
                .filter(one -> !rest.getOrDefault(one.id(), none).isZero())
                .forEach(one -> open.add(row(one, rest.getOrDefault(one.id(), none))));
        owed.sort(java.util.Comparator.comparing(Row::day));
    }

    private static void take(Map<Long, Money> rest, Map<Long, Moved> here, long movement, Money amount) {
        Moved of = here.get(movement);
        if (of != null) {
            rest.computeIfPresent(of.id(), (id, left) -> left.minus(amount));
        }
    }

    /** What the bank moved and the ledger did not leads the other way. */
    private static Row row(Moved of, Money amount) {
        return new Row(
                of.day(),
                of.number().isEmpty() ? of.text() : "Check " + of.number(),
                of.number().isEmpty() ? "" : of.text(),
                amount.negated());
    }

    List<Row> owed() {
        return owed;
    }

    List<Row> open() {
        return open;
    }
}
