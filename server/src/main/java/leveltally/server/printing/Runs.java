package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.money.Money;
import leveltally.core.paper.CheckText;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.server.batches.Batch;
import leveltally.server.paper.PaperLayout;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The rows of print runs and their documents. */
@Component
class Runs {
    private final EntityManager entities;
    private final Contents contents;
    private final JdbcClient jdbc;

    Runs(EntityManager entities, Contents contents, JdbcClient jdbc) {
        this.jdbc = jdbc;
        this.entities = entities;
        this.contents = contents;
    }

    /**
     * One document of a run.
     *
     * @param serial the first, second … rendering of its number
     */
    record Sheet(CheckNumberId number, PaymentId payment, int serial, CheckText text, int pages) {}

    /** The newest document of each number of a batch. */
    List<DocumentEntity> latest(BatchId batch) {
        return entities.createQuery("""
                        select d from DocumentEntity d join RunEntity r on r.id = d.runId where r.batchId = :batch
                        and d.kind = CHECK and not exists (select 1 from DocumentEntity e
                          where e.checkNumberId = d.checkNumberId and e.kind = d.kind and e.serial > d.serial)
                        """, DocumentEntity.class)
                .setParameter("batch", batch.value())
                .getResultList();
    }

    /** The sheets that were handed over and have no answer: each document by its number. */
    Map<Long, Long> waiting(BatchId batch) {
        Map<Long, Long> documents = new HashMap<>();
        jdbc.sql("""
                        SELECT d.id, n.number FROM document d JOIN print_run r ON r.id = d.run_id
                        JOIN check_number n ON n.id = d.check_number_id
                        WHERE r.batch_id = :batch AND r.sent_at IS NOT NULL AND d.kind = :check AND d.answer IS NULL
                          AND d.payment_id = n.payment_id
                        """)
                .param("batch", batch.value())
                .param("check", DocumentKind.CHECK.name())
                .query((java.sql.ResultSet r) -> {
                    documents.put(r.getLong("number"), r.getLong("id"));
                });
        return documents;
    }

    /** Whether a printer had one of these numbers for a payment that was taken out: its sheet stayed blank, or is lost. */
    boolean mayLieAbout(Collection<CheckNumberId> numbers) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM document d JOIN print_run r ON r.id = d.run_id JOIN payment p ON p.id = d.payment_id
                        WHERE d.check_number_id IN (:numbers) AND r.sent_at IS NOT NULL AND p.state = :out
                        """)
                        .param(
                                "numbers",
                                numbers.stream().map(CheckNumberId::value).toList())
                        .param("out", PaymentState.TAKEN_OUT.name())
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** How often each of these numbers was rendered so far, by number. */
    Map<Long, Integer> serials(Collection<CheckNumberId> numbers) {
        Map<Long, Integer> serials = new HashMap<>();
        jdbc.sql("SELECT check_number_id, MAX(serial) AS serial FROM document WHERE check_number_id IN (:numbers)"
                        + " GROUP BY check_number_id")
                .param("numbers", numbers.stream().map(CheckNumberId::value).toList())
                .query((java.sql.ResultSet r) -> {
                    serials.put(r.getLong("check_number_id"), r.getInt("serial"));
                });
        return serials;
    }

    List<DocumentEntity> documents(long runId) {
        return entities.createQuery(
                        "select d from DocumentEntity d where d.runId = :run order by d.position", DocumentEntity.class)
                .setParameter("run", runId)
                .getResultList();
    }

    /** Those of these documents that are sheets of this batch, by id, with their rows locked until the transaction ends. */
    Map<Long, DocumentEntity> lock(BatchId batch, Collection<Long> ids) {
        return entities.createQuery("""
                        select d from DocumentEntity d where d.id in :ids
                        and d.runId in (select r.id from RunEntity r where r.batchId = :batch) order by d.id
                        """, DocumentEntity.class)
                .setParameter("ids", ids)
                .setParameter("batch", batch.value())
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultStream()
                .collect(Collectors.toMap(d -> d.id, d -> d));
    }

    /** The runs of these documents, by id. */
    Map<Long, RunEntity> of(Collection<DocumentEntity> documents) {
        return entities.createQuery("select r from RunEntity r where r.id in :runs", RunEntity.class)
                .setParameter(
                        "runs", documents.stream().map(d -> d.runId).distinct().toList())
                .getResultStream()
                .collect(Collectors.toMap(r -> r.id, r -> r));
    }

    /** Those of these documents whose number was printed once more since, by id. */
    Set<Long> printedAgain(Collection<DocumentEntity> documents) {
        return documents.isEmpty()
                ? Set.of()
                : Set.copyOf(entities.createQuery("""
                        select d.id from DocumentEntity d where d.id in :ids and exists (select 1 from DocumentEntity e
                          where e.checkNumberId = d.checkNumberId and e.kind = d.kind and e.serial > d.serial)
                        """, Long.class)
                        .setParameter("ids", documents.stream().map(d -> d.id).toList())
                        .getResultList());
    }

    /** The advice that goes with a check. */
    List<DocumentEntity> advices(DocumentEntity check) {
        return entities.createQuery(
                        "select d from DocumentEntity d where d.checkNumberId = :number and d.paymentId = :payment"
                                + " and d.kind = ADVICE",
                        DocumentEntity.class)
                .setParameter("number", check.checkNumberId)
                .setParameter("payment", check.paymentId)
                .getResultList();
    }

    RunEntity of(DocumentEntity document) {
        return entities.find(RunEntity.class, document.runId);
    }

    /**
     * Writes a run, what it prints on each sheet included.
     *
     * @return its id
     */
    long write(Actor by, Batch batch, long turnSerial, DocumentKind kind, PaperLayout on, List<Sheet> sheets) {
        RunEntity run = new RunEntity();
        run.batchId = batch.id().value();
        run.bankAccountId = batch.account().value();
        run.turnSerial = turnSerial;
        run.kind = kind;
        run.madeAt = by.now();
        run.madeBy = by.person().value();
        entities.persist(run);
        Map<Long, CheckText> texts = new LinkedHashMap<>();
        for (Sheet sheet : sheets) {
            DocumentEntity document = document(run, texts.size() + 1, sheet);
            entities.persist(document);
            texts.put(document.id, sheet.text());
        }
        entities.flush();
        contents.keep(on, texts);
        return run.id;
    }

    private static DocumentEntity document(RunEntity run, int position, Sheet sheet) {
        Money amount = sheet.text().amount();
        DocumentEntity document = new DocumentEntity();
        document.runId = run.id;
        document.checkNumberId = sheet.number().value();
        document.paymentId = sheet.payment().value();
        document.position = position;
        document.kind = run.kind;
        document.serial = sheet.serial();
        document.currency = amount.currency().getCurrencyCode();
        document.amountMinor = amount.minor();
        document.pages = sheet.pages();
        document.answerWhy = "";
        return document;
    }
}
