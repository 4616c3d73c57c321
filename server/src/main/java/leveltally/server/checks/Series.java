package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Signing;
import leveltally.core.ledger.WayId;
import leveltally.core.paper.MicrPattern;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The number series, and the rows that check numbers come from. */
@Service
public class Series {
    private final EntityManager entities;

    Series(EntityManager entities) {
        this.entities = entities;
    }

    /** The series of some ways to pay, in the order of the ways. */
    @Transactional(readOnly = true)
    public List<NumberSeries> all(Collection<WayId> ways) {
        return entities.createQuery(
                        "select s from NumberSeriesEntity s where s.wayId in :ways", NumberSeriesEntity.class)
                .setParameter("ways", ways.stream().map(WayId::value).toList())
                .getResultStream()
                .map(Series::view)
                .toList();
    }

    /** @throws Refusal when payments of this way carry no numbers */
    @Transactional(readOnly = true)
    public NumberSeries of(WayId way) {
        return view(row(way));
    }

    @Transactional(readOnly = true)
    public NumberSeries get(SeriesId id) {
        NumberSeriesEntity series = entities.find(NumberSeriesEntity.class, id.value());
        if (series == null) {
            throw Refusal.notFound("no-series", "There is no such series of check numbers. Choose one from the list.");
        }
        return view(series);
    }

    /** The series of a way with its row locked until the transaction ends: whoever takes numbers starts here. */
    @Transactional
    public NumberSeries lock(WayId way) {
        NumberSeriesEntity series = row(way);
        entities.refresh(series, LockModeType.PESSIMISTIC_WRITE);
        return view(series);
    }

    /** Sets the next free number of a series that is locked, so that two never take the same. */
    @Transactional
    void advance(SeriesId id, long next) {
        entities.find(NumberSeriesEntity.class, id.value()).nextNumber = next;
    }

    private NumberSeriesEntity row(WayId way) {
        List<NumberSeriesEntity> found = entities.createQuery(
                        "select s from NumberSeriesEntity s where s.wayId = :way", NumberSeriesEntity.class)
                .setParameter("way", way.value())
                .getResultList();
        if (found.isEmpty()) {
            throw Refusal.conflict(
                    "no-numbers", "What is paid this way carries no check numbers. Choose a way to pay by check.");
        }
        return found.get(0);
    }

    private static NumberSeries view(NumberSeriesEntity s) {
        return new NumberSeries(
                new SeriesId(s.id),
                new WayId(s.wayId),
                new NumberRange(s.prefix, s.firstNumber, s.lastNumber),
                s.stock,
                s.nextNumber,
                MicrPattern.read(s.micrPattern),
                s.currencyWord,
                s.validity,
                s.sameNumberReprint,
                s.loading,
                new Signing(s.signatureId, s.signatureUpToMinor, s.secondAboveMinor, s.mostMinor));
    }
}
