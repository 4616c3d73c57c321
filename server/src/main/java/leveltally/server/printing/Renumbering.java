package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.Stock;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.PaperSays;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** From some sheet on the numbered stock in the tray was another one than was reckoned with. */
@Service
public class Renumbering {
    private final EntityManager entities;
    private final Batches batches;
    private final Checks checks;
    private final Series series;
    private final Runs runs;
    private final AuditTrail audit;

    Renumbering(EntityManager entities, Batches batches, Checks checks, Series series, Runs runs, AuditTrail audit) {
        this.entities = entities;
        this.batches = batches;
        this.checks = checks;
        this.series = series;
        this.runs = runs;
        this.audit = audit;
    }

    /**
     * Gives the payments of a sheet and of all that follow it in its run the numbers that are on their paper; the numbers passed
     * over are spoiled.
     *
     * @param says the number on the paper of that sheet
     * @param why how it came about
     */
    @Transactional
    public void renumber(Actor by, BatchId id, long documentId, long says, String why) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        String reason = Reasons.given(why, "Say how it came about, such as “two sheets fed at once”.");
        DocumentEntity first = entities.find(DocumentEntity.class, documentId);
        if (first == null || first.kind != DocumentKind.CHECK || runs.of(first).batchId != id.value()) {
            throw Refusal.notFound("no-document", "There is no such sheet in this batch.");
        }
        NumberSeries numbers = series.lock(batch.way());
        if (numbers.stock() != Stock.NUMBERED) {
            throw Refusal.conflict(
                    "we-print-numbers",
                    "The numbers of this stock are printed by us, so the paper says what was printed. Answer for each sheet"
                            + " instead.");
        }
        List<DocumentEntity> rest = runs.documents(first.runId).stream()
                .filter(document -> document.position >= first.position)
                .toList();
        Map<CheckNumberId, Check> carried = checks.of(
                rest.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        List<PaperSays.Printed> sheets = new ArrayList<>();
        for (DocumentEntity document : rest) {
            Check check = carried.get(new CheckNumberId(document.checkNumberId));
            boolean stands = check.state().isLive()
                    && check.payment().id().value() == document.paymentId
                    && check.payment().postedEntry() == null;
            sheets.add(new PaperSays.Printed(check.number(), document.answer, stands));
        }
        PaperSays paper = PaperSays.of(sheets, runs.of(first).sentAt != null, numbers.nextNumber(), says);
        numbers.range().mustHold(says, rest.size());
        List<CheckNumberId> now = checks.renumber(by, batch.way(), paper, reason);
        // the last first: where two sheets would have one number for a moment, the later one has its new one already
        for (int i = rest.size() - 1; i >= 0; i--) {
            DocumentEntity sheet = rest.get(i);
            for (DocumentEntity advice : runs.advices(sheet)) {
                advice.checkNumberId = now.get(i).value();
            }
            sheet.checkNumberId = now.get(i).value();
            entities.flush();
        }
        audit.record(
                by,
                "renumber sheets",
                "batch " + id.value(),
                Map.of("from", paper.reckoned(), "paper says", says, "sheets", rest.size(), "why", reason));
    }
}
