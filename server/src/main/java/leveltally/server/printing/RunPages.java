package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.money.Money;
import leveltally.core.paper.Alignment;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.Paper;
import leveltally.core.paper.Signature;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.payments.PaymentId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.checks.Series;
import leveltally.server.paper.Alignments;
import leveltally.server.paper.CheckPages;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.PrintJob;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Draws runs from what was kept of them: for a printer, and to look at. */
@Service
public class RunPages {
    private static final int AT_ONCE = 500;

    private final EntityManager entities;
    private final Batches batches;
    private final CheckPages pages;
    private final Runs runs;
    private final Contents contents;
    private final Series series;
    private final Alignments alignments;
    private final Checks checks;

    RunPages(
            EntityManager entities,
            Batches batches,
            CheckPages pages,
            Runs runs,
            Contents contents,
            Series series,
            Alignments alignments,
            Checks checks) {
        this.checks = checks;
        this.entities = entities;
        this.batches = batches;
        this.pages = pages;
        this.runs = runs;
        this.contents = contents;
        this.series = series;
        this.alignments = alignments;
    }

    /**
     * A run as a printer gets it, number and MICR line included.
     *
     * @param wanted which of its documents
     */
    @Transactional(readOnly = true)
    public DrawnRun job(long runId, CompanyPrinter printer, List<Long> wanted) {
        RunEntity run = run(runId);
        List<DocumentEntity> documents = runs.documents(runId).stream()
                .filter(d -> wanted.contains(d.id))
                .toList();
        Batch batch = batches.get(new BatchId(run.batchId));
        Paper paper = pages.paper(batch.account(), batch.way());
        Signature signature = pages.signature(batch.account(), batch.way());
        Alignment alignment = alignments.of(series.of(batch.way()).id(), printer.id());
        Iterable<Page> drawn = draw(
                documents,
                (text, layout) -> Stream.of(
                        pages.forThePrinter(text, layout, paper, signature).moved(alignment)));
        boolean checks = run.kind == DocumentKind.CHECK;
        String title = (checks ? "Checks of batch " : "Remittance advice of batch ") + run.batchId + ", run " + runId;
        List<Long> signed = signature == null || !checks
                ? List.of()
                : documents.stream()
                        .filter(d -> signature.signs(Money.ofMinor(d.amountMinor, d.currency)))
                        .map(d -> d.id)
                        .toList();
        return new DrawnRun(
                new PrintJob(title, batch.account(), pages.pdf(title, drawn), wanted, !checks), signature, signed);
    }

    /** A run as a PDF to look at: every check marked, no MICR line. */
    @Transactional(readOnly = true)
    public byte[] copy(long runId) {
        run(runId);
        return pages.pdf("Copy, not checks", draw(runs.documents(runId), this::marked));
    }

    /**
     * The checks of these payments as they were printed last, marked, each with what its stub had no room for, and the advice of
     * those without paper: a stub given again, whatever became of the payment since.
     *
     * @throws Refusal while nothing was kept of one of them
     */
    @Transactional(readOnly = true)
    public byte[] stubs(List<PaymentId> payments) {
        List<DocumentEntity> printed = entities.createQuery("""
                        select d from DocumentEntity d where d.kind = CHECK and d.id in (
                          select max(x.id) from DocumentEntity x where x.kind = CHECK and x.paymentId in :payments
                          group by x.paymentId) order by d.id
                        """, DocumentEntity.class)
                .setParameter(
                        "payments", payments.stream().map(PaymentId::value).toList())
                .getResultList();
        Map<PaymentId, CheckText> paperless = contents.paperless(payments);
        if (printed.size() + paperless.size() < payments.stream().distinct().count()) {
            throw Refusal.notFound("not-printed", "Nothing was kept of one of these payments, so it has no stub.");
        }
        Iterable<Page> stubs = draw(
                printed,
                (text, layout) ->
                        Stream.concat(Stream.of(pages.toLookAt(text, layout)), pages.advice(text, layout).stream()));
        return pages.pdf(
                "Stubs again, copies",
                () -> Stream.concat(
                                StreamSupport.stream(stubs.spliterator(), false),
                                paperless.values().stream()
                                        .flatMap(text -> pages.wholeAdvice(text, StandardLayouts.LETTER).stream()))
                        .iterator());
    }

    /** The first page of one document as it lies in the tray, marked. */
    @Transactional(readOnly = true)
    public Page trayPage(long documentId) {
        DocumentEntity document = entities.find(DocumentEntity.class, documentId);
        if (document == null) {
            throw Refusal.notFound("no-document", "There is no such sheet in the tray.");
        }
        return drawn(List.of(document), this::marked).get(0);
    }

    /**
     * Everything a payment is for, as its payee is told: drawn from what was printed last, or kept when it was made.
     *
     * @throws Refusal while neither was
     */
    @Transactional(readOnly = true)
    public byte[] advice(PaymentId payment) {
        CheckText paperless = contents.paperless(List.of(payment)).get(payment);
        if (paperless != null) {
            return pages.pdf(
                    "Remittance advice, " + paperless.called(), pages.wholeAdvice(paperless, StandardLayouts.LETTER));
        }
        DocumentEntity printed = entities.createQuery(
                        "select d from DocumentEntity d where d.paymentId = :payment and d.kind = CHECK order by d.id desc",
                        DocumentEntity.class)
                .setParameter("payment", payment.value())
                .setMaxResults(1)
                .getResultStream()
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("not-printed", "Nothing was printed for this payment yet."));
        Contents.Kept kept = contents.of(List.of(printed.id)).get(printed.id);
        long number = checks.of(List.of(new CheckNumberId(printed.checkNumberId)))
                .get(new CheckNumberId(printed.checkNumberId))
                .number();
        return pages.pdf(
                "Remittance advice, check " + number,
                pages.wholeAdvice(kept.text().numbered(number), kept.layout()));
    }

    private Stream<Page> marked(CheckText text, CheckLayout layout) {
        return Stream.of(pages.toLookAt(text, layout));
    }

    private RunEntity run(long id) {
        RunEntity run = entities.find(RunEntity.class, id);
        if (run == null) {
            throw Refusal.notFound("no-run", "There is no such print run.");
        }
        return run;
    }

    /** Some hundred at a time, so that a run of any length takes the same memory; within them, several at once. */
    private Iterable<Page> draw(
            List<DocumentEntity> documents, BiFunction<CheckText, CheckLayout, Stream<Page>> check) {
        return () -> IntStream.iterate(0, from -> from < documents.size(), from -> from + AT_ONCE)
                .mapToObj(from -> documents.subList(from, Math.min(documents.size(), from + AT_ONCE)))
                .flatMap(some -> drawn(some, check).stream())
                .iterator();
    }

    private List<Page> drawn(List<DocumentEntity> documents, BiFunction<CheckText, CheckLayout, Stream<Page>> check) {
        Map<Long, Contents.Kept> kept =
                contents.of(documents.stream().map(d -> d.id).toList());
        // numbered stock says itself which number it has, and may have said another one than was reckoned with
        Map<CheckNumberId, Check> numbers = checks.of(
                documents.stream().map(d -> new CheckNumberId(d.checkNumberId)).toList());
        // each is drawn by itself: several at once
        return documents.parallelStream()
                .flatMap(document -> {
                    Contents.Kept content = kept.get(document.id);
                    CheckText text = content.text()
                            .numbered(numbers.get(new CheckNumberId(document.checkNumberId))
                                    .number());
                    return document.kind == DocumentKind.CHECK
                            ? check.apply(text, content.layout())
                            : pages.advice(text, content.layout()).stream();
                })
                .toList();
    }
}
