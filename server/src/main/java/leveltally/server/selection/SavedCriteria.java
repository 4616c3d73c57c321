package leveltally.server.selection;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.people.People;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Sentences kept under a name: one's own, and those others share. */
@Service
public class SavedCriteria {
    private static final int LONGEST_NAME = 60;

    private final EntityManager entities;
    private final JsonMapper json;
    private final People people;
    private final AuditTrail audit;

    SavedCriteria(EntityManager entities, JsonMapper json, People people, AuditTrail audit) {
        this.entities = entities;
        this.json = json;
        this.people = people;
        this.audit = audit;
    }

    /** One kept sentence; {@code mine} may be changed. */
    record Saved(
            long id,
            String name,
            String owner,
            boolean mine,
            boolean shared,
            DueQuestion question,
            @Nullable Long lastBatch,
            @Nullable Instant lastRunAt,
            @Nullable String lastOutcome) {}

    @Transactional(readOnly = true)
    List<Saved> list(Actor by) {
        by.mayDo(Deed.READ);
        Map<Long, String> names = people.names();
        return entities.createQuery(
                        "select c from SavedCriteriaEntity c where c.personId = :me or c.shared order by c.name, c.id",
                        SavedCriteriaEntity.class)
                .setParameter("me", by.person().value())
                .getResultStream()
                .map(row -> new Saved(
                        row.id,
                        row.name,
                        names.getOrDefault(row.personId, "Somebody"),
                        row.personId == by.person().value(),
                        row.shared,
                        json.readValue(row.content, DueQuestion.class),
                        row.lastBatchId,
                        row.lastRunAt,
                        row.lastOutcome))
                .toList();
    }

    /** Keeps a sentence; one's own of the same name is replaced. Marks by hand are not part of it. */
    @Transactional
    public long save(Actor by, String name, boolean shared, DueQuestion question) {
        by.mayDo(Deed.EDIT_BATCH);
        String called = name.strip();
        if (called.isEmpty() || called.length() > LONGEST_NAME) {
            throw Refusal.invalidField("name-missing", "name", "Give these criteria a name of at most 60 characters.");
        }
        SavedCriteriaEntity row = entities.createQuery(
                        "select c from SavedCriteriaEntity c where c.personId = :me and c.name = :name",
                        SavedCriteriaEntity.class)
                .setParameter("me", by.person().value())
                .setParameter("name", called)
                .getResultStream()
                .findFirst()
                .orElseGet(SavedCriteriaEntity::new);
        row.name = called;
        row.personId = by.person().value();
        row.shared = shared;
        row.content = json.writeValueAsString(question.marked(null, null));
        if (row.id == null) {
            entities.persist(row);
        }
        audit.record(by, "keep criteria", "criteria " + row.id, Map.of("name", called, "shared", shared));
        return row.id;
    }

    @Transactional
    void remove(Actor by, long id) {
        by.mayDo(Deed.EDIT_BATCH);
        SavedCriteriaEntity row = entities.find(SavedCriteriaEntity.class, id);
        if (row == null || row.personId != by.person().value()) {
            throw Refusal.notFound(
                    "no-criteria", "You have no criteria of this name. Only who kept them removes them.");
        }
        entities.remove(row);
        audit.record(by, "remove criteria", "criteria " + id, Map.of("name", row.name));
    }

    /** Notes what came of a run; criteria removed meanwhile are passed over. */
    @Transactional
    public void ran(Actor by, long id, long batch, String outcome) {
        SavedCriteriaEntity row = entities.find(SavedCriteriaEntity.class, id);
        if (row != null && (row.shared || row.personId == by.person().value())) {
            row.lastBatchId = batch;
            row.lastRunAt = by.now();
            row.lastOutcome = outcome;
        }
    }
}
