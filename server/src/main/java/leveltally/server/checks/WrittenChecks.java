package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.Tray;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The numbers of checks that somebody wrote by hand. */
@Service
public class WrittenChecks {
    private final EntityManager entities;
    private final Series series;
    private final Checks checks;

    WrittenChecks(EntityManager entities, Series series, Checks checks) {
        this.entities = entities;
        this.series = series;
        this.checks = checks;
    }

    /** A payment with the number of the check that somebody wrote for it. */
    public record Written(PaymentId payment, long number) {}

    /**
     * Records the numbers of checks that were written by hand: from a check book, found again among the unaccounted ones, or
     * torn from the stock of a printed series, where those before it become unaccounted.
     *
     * @throws Refusal when one of them was used
     */
    @Transactional
    public List<CheckNumberId> writeDown(Actor by, WayId way, List<Written> written) {
        NumberSeries from = series.lock(way);
        Map<Long, CheckNumberEntity> known = entities.createQuery(
                        "select n from CheckNumberEntity n where n.seriesId = :series and n.number in :numbers",
                        CheckNumberEntity.class)
                .setParameter("series", from.id().value())
                .setParameter("numbers", written.stream().map(Written::number).toList())
                .getResultStream()
                .collect(Collectors.toMap(n -> n.number, n -> n));
        Map<Long, CheckNumberEntity> now = new HashMap<>();
        for (Written one : written.stream()
                .sorted(Comparator.comparingLong(Written::number))
                .toList()) {
            CheckNumberEntity row = known.get(one.number());
            if (row != null) {
                entities.refresh(row, LockModeType.PESSIMISTIC_WRITE);
                row.state = row.state.to(NumberState.WRITTEN, row.number);
                row.paymentId = one.payment().value();
                row.stateDate = by.today();
                row.explanation = "";
                checks.event(by, row, "found again: written by hand");
            } else {
                if (from.stock().isPrinted()) {
                    String why = "passed over by " + one.number() + ", written by hand";
                    Tray tray = Tray.confirm(series.of(way).nextNumber(), one.number(), why);
                    checks.passOver(by, series.of(way), tray.first(), why);
                    series.advance(from.id(), one.number() + 1);
                }
                row = checks.number(
                        by,
                        from,
                        one.number(),
                        NumberState.WRITTEN,
                        one.payment().value(),
                        "",
                        "written by hand");
            }
            now.put(one.number(), row);
        }
        entities.flush();
        return written.stream()
                .map(one -> new CheckNumberId(now.get(one.number()).id))
                .toList();
    }
}
