package leveltally.server.printing;

import java.sql.Timestamp;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterId;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The rows of what was given to printers. */
@Component
class HandoverRows {
    private final JdbcClient jdbc;
    private final WorkIds ids;

    HandoverRows(JdbcClient jdbc, WorkIds ids) {
        this.jdbc = jdbc;
        this.ids = ids;
    }

    /** A printer that has, or may have, a job. */
    record GivenJob(PrinterId printer, String job) {}

    long begin(Actor by, long run, PrinterId printer) {
        long id = ids.supply().next();
        jdbc.sql("INSERT INTO handing_over (id, run_id, printer_id, at, person_id)"
                        + " VALUES (:id, :run, :printer, :at, :person)")
                .param("id", id)
                .param("run", run)
                .param("printer", printer.value())
                .param("at", Timestamp.from(by.now()))
                .param("person", by.person().value())
                .update();
        return id;
    }

    void end(long handing, Handed handed) {
        jdbc.sql("UPDATE handing_over SET outcome = :outcome, said = :said, job = :job WHERE id = :id")
                .param("outcome", handed.outcome().name())
                .param("said", handed.said())
                .param("job", handed.job())
                .param("id", handing)
                .update();
    }

    /** The check numbers of some documents, in their order. */
    List<Long> numbers(Collection<Long> documents) {
        return jdbc.sql("SELECT n.number FROM document d JOIN check_number n ON n.id = d.check_number_id"
                        + " WHERE d.id IN (:documents) ORDER BY n.number")
                .param("documents", documents)
                .query(Long.class)
                .list();
    }

    /** What printers were given of these documents, or may have been. */
    List<GivenJob> jobs(BatchId batch, Collection<Long> documents) {
        return jdbc.sql("""
                        SELECT DISTINCT h.printer_id, h.job FROM handing_over h JOIN print_run r ON r.id = h.run_id
                        JOIN document d ON d.run_id = r.id
                        WHERE r.batch_id = :batch AND h.held_run_id IS NOT NULL AND d.id IN (:documents)
                        """)
                .param("batch", batch.value())
                .param("documents", documents)
                .query((r, n) -> new GivenJob(new PrinterId(r.getLong("printer_id")), r.getString("job")))
                .list();
    }

    /** The same of what some claims' sheets wait for. */
    List<GivenJob> jobsOfClaims(BatchId batch, Collection<Long> claims) {
        return jdbc.sql("""
                        SELECT DISTINCT h.printer_id, h.job FROM handing_over h JOIN print_run r ON r.id = h.run_id
                        JOIN document d ON d.run_id = r.id JOIN payment p ON p.id = d.payment_id
                        WHERE r.batch_id = :batch AND h.held_run_id IS NOT NULL AND d.answer IS NULL AND p.claim_id IN (:claims)
                        """)
                .param("batch", batch.value())
                .param("claims", claims)
                .query((r, n) -> new GivenJob(new PrinterId(r.getLong("printer_id")), r.getString("job")))
                .list();
    }

    /** The printer this person gave the newest run of the same way to pay to. */
    Optional<PrinterId> usual(Actor by, long way) {
        return jdbc.sql("""
                        SELECT h.printer_id FROM handing_over h JOIN print_run r ON r.id = h.run_id
                        JOIN batch b ON b.id = r.batch_id
                        WHERE h.person_id = :person AND b.way_id = :way ORDER BY h.id DESC LIMIT 1
                        """)
                .param("person", by.person().value())
                .param("way", way)
                .query((r, n) -> new PrinterId(r.getLong("printer_id")))
                .optional();
    }
}
