package leveltally.server.batches;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Draft;
import leveltally.core.people.Actor;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The steps of a draft, undone and done again. */
@Service
public class Steps {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final EditLog log;
    private final Edits edits;

    Steps(Batches batches, ClaimRows claimRows, DraftRows rows, EditLog log, Edits edits) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.log = log;
        this.edits = edits;
    }

    @Transactional
    public void undo(Actor by, BatchId id, long version) {
        turn(by, id, version, EditLog.State.DONE);
    }

    @Transactional
    public void redo(Actor by, BatchId id, long version) {
        turn(by, id, version, EditLog.State.UNDONE);
    }

    private void turn(Actor by, BatchId id, long version, EditLog.State from) {
        boolean undo = from == EditLog.State.DONE;
        BatchEntity batch = edits.open(by, id, version);
        if (batch.state != BatchState.DRAFT) {
            throw Refusal.conflict(
                    "not-a-draft", "Steps can be undone only in a draft. Change something, then it is a draft again.");
        }
        EditLog.Step step = log.last(batch.id, from)
                .orElseThrow(() -> Refusal.conflict(
                        "no-step", undo ? "There is no step to undo." : "There is no step to do again."));
        Draft before = rows.draft(batch.id);
        Draft after = undo ? before.swap(step.after(), step.before()) : before.swap(step.before(), step.after());
        long was = claimRows.amountMinor(batch.id);
        edits.write(batch, before, after, true);
        log.turn(step, undo ? EditLog.State.UNDONE : EditLog.State.DONE);
        batches.changed(by, batch, (undo ? "undid: " : "did again: ") + step.what(), was);
    }

    /** What changed since the batch was made, newest first. */
    @Transactional(readOnly = true)
    List<EditLog.Entry> changes(BatchId id) {
        return log.entries(id.value());
    }
}
