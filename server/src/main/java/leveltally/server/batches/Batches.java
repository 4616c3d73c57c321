package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Collection;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.people.People;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Batches and their lives; {@link Drafting} edits them.
 *
 * <p>Every deed locks the batch's row first and compares its version, so that two edits of one batch come one after the
 * other and the later one is told who was first.
 */
@Service
public class Batches {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final ClaimRows claims;
    private final People people;
    private final AuditTrail audit;
    private final ApplicationEventPublisher events;

    Batches(
            EntityManager entities,
            JdbcClient jdbc,
            ClaimRows claims,
            People people,
            AuditTrail audit,
            ApplicationEventPublisher events) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.claims = claims;
        this.people = people;
        this.audit = audit;
        this.events = events;
    }

    /**
     * Told within the transaction of the deed, before the round is void.
     *
     * @param batch as it was
     * @param what was done to it
     */
    public record ApprovalVoided(Actor by, Batch batch, String what) {}

    /** A batch with its row locked until the transaction ends, after its version was compared. */
    @Transactional
    public Batch lockFor(BatchId id, long version) {
        return view(lock(id, version));
    }

    /** A batch with its row locked, whatever its version: for deeds that are safe to repeat. */
    @Transactional
    public Batch lockAnyVersion(BatchId id) {
        return view(lock(id, null));
    }

    @Transactional(readOnly = true)
    public Batch get(BatchId id) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        return view(batch);
    }

    /** Moves a locked batch on; the gate between the states is {@link BatchState#to}. */
    @Transactional
    public void move(Actor by, BatchId id, BatchState to, String what) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        batch.state = batch.state.to(to);
        if (to == BatchState.IN_APPROVAL) {
            batch.sentAt = by.now();
            batch.sentBackReason = null;
        }
        touch(batch, by, what);
    }

    /** Sends a locked batch back to its draft and starts a new round, so that no earlier approval counts. */
    @Transactional
    public void backToDraft(Actor by, BatchId id, String reason) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        batch.state = batch.state.to(BatchState.DRAFT);
        batch.approvalRound++;
        batch.sentBackReason = reason;
        touch(batch, by, "sent it back");
    }

    BatchEntity row(BatchId id) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        return batch;
    }

    /** Everyone who prepared or changed it, or entered, brought in or released an invoice of it (law L7). */
    @Transactional(readOnly = true)
    public Set<PersonId> hands(BatchId id) {
        return new HashSet<>(jdbc.sql("SELECT person_id FROM hand WHERE batch_id = :batch")
                .param("batch", id.value())
                .query((r, n) -> new PersonId(r.getLong("person_id")))
                .list());
    }

    BatchEntity lock(BatchId id, @Nullable Long version) {
        BatchEntity batch = entities.find(BatchEntity.class, id.value());
        if (batch == null) {
            throw unknown();
        }
        entities.refresh(batch, LockModeType.PESSIMISTIC_WRITE);
        if (version != null && batch.version != version) {
            String who = people.names().getOrDefault(batch.changedBy, "Somebody");
            String when = DateTimeFormatter.ofPattern("HH:mm 'UTC'", Locale.ROOT)
                    .withZone(ZoneOffset.UTC)
                    .format(batch.changedAt);
            throw Refusal.conflict(
                    "changed-meanwhile",
                    who + " changed this batch at " + when + ": " + batch.changedWhat
                            + ". Nothing of yours was saved; look at it as it is now and repeat what you still want.");
        }
        return batch;
    }

    /**
     * After every edit: who and what, the hand (L7), and a round void when the batch had been sent.
     *
     * @param was the batch's amount before, in minor units
     */
    void changed(Actor by, BatchEntity batch, String what, long was) {
        addHand(batch, by);
        voided(by, batch, what);
        if (batch.state != BatchState.DRAFT) {
            batch.state = batch.state.to(BatchState.DRAFT);
            batch.approvalRound++;
        }
        touch(batch, by, what);
        audit.record(
                by,
                "change batch",
                "batch " + batch.id,
                Map.of(
                        "what",
                        what,
                        "before",
                        amount(batch, was),
                        "after",
                        amount(batch, claims.amountMinor(batch.id))));
    }

    /** Everyone whose hand it is approves nothing of it (law L7). */
    @Transactional
    public void addHand(BatchId id, Actor by) {
        addHand(row(id), by);
    }

    /** The same for others whose work went into it. */
    @Transactional
    public void addHands(BatchId id, Collection<PersonId> people) {
        for (PersonId person : people) {
            jdbc.sql("INSERT IGNORE INTO batch_hand (batch_id, person_id) VALUES (:batch, :person)")
                    .param("batch", id.value())
                    .param("person", person.value())
                    .update();
        }
    }

    private String amount(BatchEntity batch, long minor) {
        String currency = jdbc.sql("SELECT currency FROM bank_account WHERE id = ?")
                .param(batch.bankAccountId)
                .query(String.class)
                .single();
        return Money.ofMinor(minor, currency) + " " + currency;
    }

    /** Says that what was asked or given for a batch counts no more; nothing is said of a draft. */
    void voided(Actor by, BatchEntity batch, String what) {
        if (batch.state != BatchState.DRAFT) {
            events.publishEvent(new ApprovalVoided(by, view(batch), what));
        }
    }

    void addHand(BatchEntity batch, Actor by) {
        jdbc.sql("INSERT IGNORE INTO batch_hand (batch_id, person_id) VALUES (:batch, :person)")
                .param("batch", batch.id)
                .param("person", by.person().value())
                .update();
    }

    /** Gives a locked batch a new version, and says who did what to it last. */
    @Transactional
    public void note(Actor by, BatchId id, String what) {
        touch(row(id), by, what);
    }

    static void touch(BatchEntity batch, Actor by, String what) {
        batch.changedBy = by.person().value();
        batch.changedAt = by.now();
        batch.changedWhat = what.substring(0, Math.min(200, what.length()));
    }

    private static Batch view(BatchEntity b) {
        Instant sentAt = b.sentAt;
        return new Batch(
                new BatchId(b.id),
                b.name,
                b.note,
                b.purpose,
                new BankAccountId(b.bankAccountId),
                new WayId(b.wayId),
                b.method,
                b.checkDate,
                b.ledgerDate,
                b.nextRun,
                b.state,
                b.approvalRound,
                new PersonId(b.preparedBy),
                sentAt,
                b.sentBackReason,
                b.version);
    }

    private static Refusal unknown() {
        return Refusal.notFound("no-batch", "There is no such batch. Choose one from the list of batches.");
    }
}
