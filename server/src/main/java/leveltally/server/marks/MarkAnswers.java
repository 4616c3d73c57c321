package leveltally.server.marks;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the clerk says to a mark; it travels with the batch to its approvers and changes nothing about the payments. */
@Service
public class MarkAnswers {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final WorkIds ids;
    private final AuditTrail audit;

    MarkAnswers(JdbcClient jdbc, Batches batches, WorkIds ids, AuditTrail audit) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.ids = ids;
        this.audit = audit;
    }

    /** The newest answer to a mark. */
    public record Answer(String note, String who, Instant at) {}

    @Transactional
    public void answer(Actor by, BatchId id, String key, String note) {
        by.mayDo(Deed.EDIT_BATCH);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.DRAFT && batch.state() != BatchState.IN_APPROVAL) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ", so nobody would read a note to a mark any more.");
        }
        String kind = kind(key);
        if (note.isBlank()) {
            throw Refusal.invalidField("note-missing", "note", "Say what you found out about this mark.");
        }
        refuseWhoApproved(by, batch);
        batches.addHand(id, by);
        jdbc.sql("INSERT INTO mark_answer (id, batch_id, mark_key, note, person_id, at) VALUES (?, ?, ?, ?, ?, ?)")
                .params(List.of(
                        ids.supply().next(),
                        id.value(),
                        key,
                        note.strip(),
                        by.person().value(),
                        Timestamp.from(by.now())))
                .update();
        audit.record(by, "answer mark", "batch " + id.value(), Map.of("mark", kind, "note", note.strip()));
    }

    /** An explanation is a hand in the batch, so it comes from nobody who approved it already (law L7). */
    private void refuseWhoApproved(Actor by, Batch batch) {
        long approved = jdbc.sql("SELECT COUNT(*) FROM approval WHERE batch_id = :batch AND round = :round"
                        + " AND outcome = 'APPROVED' AND :person IN (person_id, on_behalf_of)")
                .param("batch", batch.id().value())
                .param("round", batch.approvalRound())
                .param("person", by.person().value())
                .query(Long.class)
                .single();
        if (approved > 0) {
            throw Refusal.notAllowed(
                    "approved-already", "You approved this batch, so somebody else says what its marks are about.");
        }
    }

    /** A mark's key begins with its kind. */
    private static String kind(String key) {
        return Arrays.stream(MarkKind.values())
                .filter(kind -> key.startsWith(kind.name() + " "))
                .map(MarkKind::words)
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-mark",
                        "key",
                        "There is no such mark. Look at the batch again and choose one of its marks."));
    }

    /** By key of the mark. */
    @Transactional(readOnly = true)
    public Map<String, Answer> of(BatchId id) {
        Map<String, Answer> answers = new HashMap<>();
        jdbc.sql("""
                        SELECT a.mark_key, a.note, p.name, a.at FROM mark_answer a JOIN person p ON p.id = a.person_id
                        WHERE a.batch_id = ? ORDER BY a.at, a.id
                        """).param(id.value()).query(r -> {
            answers.put(
                    r.getString("mark_key"),
                    new Answer(
                            r.getString("note"),
                            r.getString("name"),
                            r.getTimestamp("at").toInstant()));
        });
        return answers;
    }
}
