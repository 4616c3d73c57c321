package leveltally.server.approval;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.company.BusinessDay;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Asks again who has not answered, and asks a step's second line in the end. It only ever asks: nothing approves itself.
 * Several server processes may run it; the batch's lock and a second look keep each reminder single.
 */
@Component
public class Reminders {
    private static final Logger LOG = LoggerFactory.getLogger(Reminders.class);

    private final JdbcClient jdbc;
    private final Batches batches;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Letters letters;
    private final BusinessDay day;
    private final AuditTrail audit;
    private final TransactionTemplate each;

    Reminders(
            JdbcClient jdbc,
            Batches batches,
            Rounds rounds,
            Deputies deputies,
            Letters letters,
            BusinessDay day,
            AuditTrail audit,
            TransactionTemplate each) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.rounds = rounds;
        this.deputies = deputies;
        this.letters = letters;
        this.day = day;
        this.audit = audit;
        this.each = each;
    }

    @Scheduled(fixedDelayString = "PT1M", initialDelayString = "PT1M")
    void rounds() {
        run(Instant.now());
    }

    /** Does what is due at an instant; answers how many were reminded or escalated. */
    public int run(Instant now) {
        List<BatchId> waiting = jdbc.sql("SELECT id FROM batch WHERE state = :waits ORDER BY id")
                .param("waits", BatchState.IN_APPROVAL.name())
                .query((r, n) -> new BatchId(r.getLong("id")))
                .list();
        LocalDate today = day.today();
        int done = 0;
        for (Round round : rounds.of(waiting, today)) {
            if (remindIsDue(round, now) || escalationIsDue(round, now)) {
                done += askAlone(round.batch(), today, now);
            }
        }
        return done;
    }

    /** Whatever is wrong with one batch keeps no other from being asked about. */
    private int askAlone(BatchId id, LocalDate today, Instant now) {
        try {
            Integer done = each.execute(status -> ask(id, today, now));
            return done == null ? 0 : done;
        } catch (RuntimeException failed) {
            LOG.error("reminding of batch {} failed; the others go on", id.value(), failed);
            return 0;
        }
    }

    private int ask(BatchId id, LocalDate today, Instant now) {
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.IN_APPROVAL) {
            return 0;
        }
        Round round = rounds.of(id, today);
        Roster roster = deputies.roster(today);
        Actor clock = new Actor(new PersonId(0), "Level Tally", Set.of(), today, now, "schedule");
        String step = round.answering().step().name();
        int done = 0;
        if (escalationIsDue(round, now)) {
            rounds.escalated(round, round.current(), now);
            letters.escalated(batch, rounds.of(id, today), roster, now);
            audit.record(clock, "ask second line", "batch " + id.value(), Map.of("step", step));
            done++;
        }
        if (remindIsDue(round, now)) {
            rounds.reminded(round, round.current(), now);
            letters.reminded(batch, round, roster, now);
            audit.record(clock, "remind of approval", "batch " + id.value(), Map.of("step", step));
            done++;
        }
        return done;
    }

    private static boolean remindIsDue(Round round, Instant now) {
        return round.waiting()
                .filter(step -> {
                    Instant last = step.remindedAt() == null ? step.openedAt() : step.remindedAt();
                    return isOver(last, step.step().remindAfterHours(), now);
                })
                .isPresent();
    }

    private static boolean escalationIsDue(Round round, Instant now) {
        return round.waiting()
                .filter(step -> step.escalatedAt() == null
                        && isOver(step.openedAt(), step.step().escalateAfterHours(), now))
                .isPresent();
    }

    private static boolean isOver(@org.jspecify.annotations.Nullable Instant since, int hours, Instant now) {
        return hours > 0
                && since != null
                && !since.plus(Duration.ofHours(hours)).isAfter(now);
    }
}
