package leveltally.server.checks;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.checks.NextNumber;
import leveltally.core.checks.SeriesId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.TwoPeople;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** A next number that is passed on by hand: proposed with a reason by one person, confirmed by a second. */
@Service
public class SeriesCorrections {
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final Series series;
    private final Checks checks;
    private final AuditTrail audit;

    SeriesCorrections(JdbcClient jdbc, WorkIds ids, Series series, Checks checks, AuditTrail audit) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.series = series;
        this.checks = checks;
        this.audit = audit;
    }

    /** What waits for a second person. */
    public record Waiting(
            long id, long series, long from, long to, String reason, long proposedBy, String who, Instant at) {}

    @Transactional(readOnly = true)
    public Optional<Waiting> waiting(SeriesId id) {
        return jdbc.sql("""
                        SELECT c.id, c.series_id, c.from_number, c.to_number, c.reason, c.proposed_by, p.name, c.proposed_at
                        FROM series_correction c JOIN person p ON p.id = c.proposed_by
                        WHERE c.waiting_series_id = :series
                        """)
                .param("series", id.value())
                .query((r, n) -> new Waiting(
                        r.getLong("id"),
                        r.getLong("series_id"),
                        r.getLong("from_number"),
                        r.getLong("to_number"),
                        r.getString("reason"),
                        r.getLong("proposed_by"),
                        r.getString("name"),
                        r.getTimestamp("proposed_at").toInstant()))
                .optional();
    }

    @Transactional
    public void propose(Actor by, SeriesId id, long next, String reason) {
        by.mayDo(Deed.CORRECT_NUMBERS);
        NumberSeries of = series.lock(series.get(id).way());
        NextNumber wanted = new NextNumber(of.nextNumber(), next, reason);
        of.range().mustHold(next, 1);
        try {
            jdbc.sql("""
                            INSERT INTO series_correction (id, series_id, from_number, to_number, reason, proposed_by,
                              proposed_at, state) VALUES (:id, :series, :from, :to, :reason, :by, :at, 'PROPOSED')
                            """)
                    .param("id", ids.supply().next())
                    .param("series", id.value())
                    .param("from", wanted.from())
                    .param("to", wanted.to())
                    .param("reason", wanted.reason())
                    .param("by", by.person().value())
                    .param("at", Timestamp.from(by.now()))
                    .update();
        } catch (DuplicateKeyException waits) {
            throw Refusal.conflict(
                    "correction-waits",
                    "A correction of this series waits for a second person already. Have it confirmed or refused first.");
        }
        audit.record(by, "propose next number", subject(id), told(wanted));
    }

    /** Passes the numbers over; refused where some were used since it was proposed. */
    @Transactional
    public void confirm(Actor by, SeriesId id) {
        Waiting waiting = second(by, id);
        NumberSeries of = series.lock(series.get(id).way());
        if (of.nextNumber() != waiting.from()) {
            throw Refusal.conflict(
                    "numbers-went-on",
                    "Numbers were taken since this was proposed: the next is " + of.nextNumber() + ", not "
                            + waiting.from() + ". Refuse it, and have it proposed again.");
        }
        NextNumber wanted = new NextNumber(waiting.from(), waiting.to(), waiting.reason());
        checks.passOver(by, of, wanted.to(), wanted.reason());
        series.advance(id, wanted.to());
        decide(by, waiting, "CONFIRMED");
        audit.record(by, "confirm next number", subject(id), told(wanted));
    }

    /** Refuses what another proposed, or takes back one's own. */
    @Transactional
    public void refuse(Actor by, SeriesId id) {
        by.mayDo(Deed.CORRECT_NUMBERS);
        Waiting waiting = one(id);
        boolean own = waiting.proposedBy() == by.person().value();
        decide(by, waiting, own ? "TAKEN_BACK" : "REFUSED");
        audit.record(
                by,
                own ? "take back next number" : "refuse next number",
                subject(id),
                told(new NextNumber(waiting.from(), waiting.to(), waiting.reason())));
    }

    private Waiting second(Actor by, SeriesId id) {
        by.mayDo(Deed.CORRECT_NUMBERS);
        Waiting waiting = one(id);
        TwoPeople.check(new PersonId(waiting.proposedBy()), by.person());
        return waiting;
    }

    private Waiting one(SeriesId id) {
        return waiting(id)
                .orElseThrow(() -> Refusal.conflict(
                        "decided-already", "No correction of this series waits any more. Look at it again."));
    }

    private void decide(Actor by, Waiting waiting, String state) {
        int decided = jdbc.sql("UPDATE series_correction SET state = ?, decided_by = ?, decided_at = ?"
                        + " WHERE id = ? AND state = 'PROPOSED'")
                .params(state, by.person().value(), Timestamp.from(by.now()), waiting.id())
                .update();
        if (decided == 0) {
            throw Refusal.conflict("decided-already", "Somebody decided on this meanwhile. Look at the series again.");
        }
    }

    private static String subject(SeriesId id) {
        return "series " + id.value();
    }

    private static Map<String, Object> told(NextNumber wanted) {
        return Map.of("from", wanted.from(), "to", wanted.to(), "reason", wanted.reason());
    }
}
