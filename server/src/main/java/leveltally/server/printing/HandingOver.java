package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.paper.Alignment;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.Paper;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.checks.Series;
import leveltally.server.paper.Alignments;
import leveltally.server.paper.CheckPages;
import leveltally.server.paper.Pdf;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Gives a run to the printer, once; and shows what was printed, from what was kept of it. */
@Service
public class HandingOver {
    private final EntityManager entities;
    private final Batches batches;
    private final Checks checks;
    private final CheckPages pages;
    private final Printer printer;
    private final AuditTrail audit;
    private final Runs runs;
    private final Contents contents;
    private final Series series;
    private final Alignments alignments;

    HandingOver(
            EntityManager entities,
            Batches batches,
            Checks checks,
            CheckPages pages,
            Printer printer,
            AuditTrail audit,
            Runs runs,
            Contents contents,
            Series series,
            Alignments alignments) {
        this.series = series;
        this.alignments = alignments;
        this.entities = entities;
        this.batches = batches;
        this.checks = checks;
        this.pages = pages;
        this.printer = printer;
        this.audit = audit;
        this.runs = runs;
        this.contents = contents;
    }

    /** Marks a run as handed over; true for whoever does it first. Committed before the printer sees a page. */
    @Transactional
    public boolean markSent(Actor by, long runId) {
        by.mayDo(Deed.PRINT);
        RunEntity run = entities.find(RunEntity.class, runId);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        entities.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (run.sentAt != null) {
            return false;
        }
        run.sentAt = by.now();
        audit.record(by, "print", "batch " + run.batchId, Map.of("run", runId));
        return true;
    }

    /** Draws a run and hands it to the printer; call after {@link #markSent} said true. */
    @Transactional
    public void handOver(long runId) {
        RunEntity run = entities.find(RunEntity.class, runId);
        List<DocumentEntity> documents = stillWanted(runs.documents(runId));
        if (documents.isEmpty()) {
            return;
        }
        List<Long> ids = documents.stream().map(d -> d.id).toList();
        Batch batch = batches.get(new BatchId(run.batchId));
        Paper paper = pages.paper(batch.account(), batch.way());
        Alignment alignment = alignments.of(series.of(batch.way()).id());
        List<Page> drawn = draw(
                documents,
                (text, layout) -> pages.forThePrinter(text, layout, paper).moved(alignment));
        var account = batch.account();
        if (run.kind == DocumentKind.CHECK) {
            printer.print(account, Pdf.of("Checks of batch " + run.batchId, drawn), ids);
        } else {
            printer.printPlain(account, Pdf.of("Remittance advice of batch " + run.batchId, drawn), ids);
        }
    }

    /** Without those whose payment was taken out between the numbers and the paper. */
    private List<DocumentEntity> stillWanted(List<DocumentEntity> documents) {
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        return documents.stream()
                .filter(d ->
                        numbers.get(new CheckNumberId(d.checkNumberId)).state().isLive())
                .toList();
    }

    /** A run as a PDF to look at: every check marked, no MICR line. */
    @Transactional(readOnly = true)
    public byte[] copy(long runId) {
        RunEntity run = entities.find(RunEntity.class, runId);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        return Pdf.of("Copy, not checks", draw(runs.documents(runId), pages::toLookAt));
    }

    /** The first page of one document as it lies in the tray, marked. */
    @Transactional(readOnly = true)
    public Page trayPage(long documentId) {
        DocumentEntity document = entities.find(DocumentEntity.class, documentId);
        if (document == null) {
            throw Refusal.notFound("no-document", "There is no such sheet in the tray.");
        }
        return draw(List.of(document), pages::toLookAt).get(0);
    }

    private List<Page> draw(List<DocumentEntity> documents, BiFunction<CheckText, CheckLayout, Page> check) {
        Map<Long, Contents.Kept> kept =
                contents.of(documents.stream().map(d -> d.id).toList());
        List<Page> drawn = new ArrayList<>();
        for (DocumentEntity document : documents) {
            Contents.Kept content = kept.get(document.id);
            if (document.kind == DocumentKind.CHECK) {
                drawn.add(check.apply(content.text(), content.layout()));
            } else {
                drawn.addAll(pages.advice(content.text(), content.layout()));
            }
        }
        return drawn;
    }
}
