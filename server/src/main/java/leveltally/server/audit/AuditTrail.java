package leveltally.server.audit;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import leveltally.core.audit.AuditRecord;
import leveltally.core.people.Actor;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Appends to the audit trail (law L10), in the transaction of the deed. */
@Service
public class AuditTrail {
    private final EntityManager entities;
    private final JsonMapper json;

    AuditTrail(EntityManager entities, JsonMapper json) {
        this.entities = entities;
        this.json = json;
    }

    /** Until the end of this transaction no other deed is done: for what can happen once only. To be called before all else. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void alone() {
        lockedHead();
    }

    private AuditHead lockedHead() {
        AuditHead head = entities.find(AuditHead.class, 1L);
        entities.refresh(head, LockModeType.PESSIMISTIC_WRITE);
        return head;
    }

    /**
     * Something that was done.
     *
     * @param subject what it was done to, such as {@code batch 7}
     * @param detail before and after, as far as it matters
     */
    public record Done(String deed, String subject, Map<String, ?> detail) {}

    /**
     * Records a deed; call it last in the deed's transaction, because the head of the chain stays locked until commit and
     * every other deed waits for it.
     */
    @Transactional
    public void record(Actor by, String deed, String subject, Map<String, ?> detail) {
        record(by, List.of(new Done(deed, subject, detail)));
    }

    /** Records what was done in one deed, in this order. */
    @Transactional
    public void record(Actor by, List<Done> all) {
        entities.flush();
        AuditHead head = lockedHead();
        for (Done done : all) {
            AuditRecord record = new AuditRecord(
                    head.sequence + 1,
                    by.now().truncatedTo(ChronoUnit.MICROS),
                    by.person().value(),
                    by.from(),
                    done.deed(),
                    done.subject(),
                    json.writeValueAsString(new java.util.TreeMap<>(done.detail())),
                    head.hash);
            entities.persist(new AuditRow(record));
            head.sequence = record.sequence();
            head.hash = record.hash();
        }
    }
}
