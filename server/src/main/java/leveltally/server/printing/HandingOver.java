package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.Handed;
import leveltally.core.printers.Outcome;
import leveltally.core.printing.Ranges;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.paper.CheckPages;
import leveltally.server.printers.CompanyPrinter;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The record of a run's way to a printer: it begins in a transaction of its own before the printer sees a page, and ends in
 * another with what the printer answered. Whatever ends the application between the two leaves it not known.
 */
@Service
public class HandingOver {
    private final EntityManager entities;
    private final Batches batches;
    private final Checks checks;
    private final AuditTrail audit;
    private final Runs runs;
    private final HandoverRows rows;
    private final CheckPages pages;

    HandingOver(
            EntityManager entities,
            Batches batches,
            Checks checks,
            AuditTrail audit,
            Runs runs,
            HandoverRows rows,
            CheckPages pages) {
        this.pages = pages;
        this.entities = entities;
        this.batches = batches;
        this.checks = checks;
        this.audit = audit;
        this.runs = runs;
        this.rows = rows;
    }

    /** What of a run is still to be printed: without those whose payment was taken out since it has its numbers. */
    @Transactional(readOnly = true)
    public List<Long> wanted(long run) {
        return wanted(runs.documents(run));
    }

    private List<Long> wanted(List<DocumentEntity> documents) {
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        return documents.stream()
                .filter(d ->
                        numbers.get(new CheckNumberId(d.checkNumberId)).state().isLive())
                .map(d -> d.id)
                .toList();
    }

    /**
     * Begins to give a run to a printer; committed before the printer sees a page.
     *
     * @return nothing when somebody was first, or when other documents are wanted or signed otherwise by now
     */
    @Transactional
    public Optional<Long> begin(Actor by, long runId, CompanyPrinter printer, DrawnRun drawn) {
        by.mayDo(Deed.PRINT);
        RunEntity run = run(runId);
        Batch batch = batches.lockAnyVersion(new BatchId(run.batchId));
        entities.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (run.sentAt != null
                || !wanted(runId).equals(drawn.job().documents())
                || !Objects.equals(pages.signature(batch.account(), batch.way()), drawn.signature())) {
            return Optional.empty();
        }
        run.sentAt = by.now();
        audit.record(by, "print", "batch " + run.batchId, Map.of("run", runId, "printer", printer.name()));
        if (!drawn.signed().isEmpty()) {
            audit.record(
                    by,
                    "use signature",
                    "batch " + run.batchId,
                    Map.of(
                            "run",
                            runId,
                            "picture",
                            Objects.requireNonNull(drawn.signature()).picture().id(),
                            "numbers",
                            Ranges.inWords(rows.numbers(drawn.signed()))));
        }
        return Optional.of(rows.begin(by, runId, printer.id()));
    }

    @Transactional(readOnly = true)
    public boolean isSent(long run) {
        return run(run).sentAt != null;
    }

    /** Takes down what the printer answered; a run that it certainly did not take can be given to one once more. */
    @Transactional
    public void end(Actor by, long handing, long runId, Handed handed) {
        rows.end(handing, handed);
        if (handed.outcome() == Outcome.ACCEPTED) {
            return;
        }
        RunEntity run = run(runId);
        entities.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (handed.outcome() == Outcome.REFUSED) {
            run.sentAt = null;
        }
        Map<String, Object> detail = new HashMap<>();
        detail.put("run", runId);
        detail.put("outcome", handed.outcome().words());
        detail.put("said", handed.said());
        audit.record(by, "printer answered", "batch " + run.batchId, detail);
    }

    private RunEntity run(long id) {
        RunEntity run = entities.find(RunEntity.class, id);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        return run;
    }
}
