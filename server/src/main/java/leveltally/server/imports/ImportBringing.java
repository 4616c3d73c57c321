package leveltally.server.imports;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.people.Actor;
import leveltally.server.imports.StagedRows.Outcome;
import leveltally.server.imports.StagedRows.Staged;
import leveltally.server.people.People;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings a checked file in, some documents at a time: what comes in and the mark that it did are one transaction. */
@Component
class ImportBringing {
    /** So many blocks, then other files have their turn. */
    private static final int BLOCKS_IN_A_ROW = 20;

    private final StagedRows staged;
    private final ImportLeases leases;
    private final ImportLookups lookups;
    private final Arrivals arrivals;
    private final People people;
    private final JdbcClient jdbc;
    private final TransactionTemplate together;

    ImportBringing(
            StagedRows staged,
            ImportLeases leases,
            ImportLookups lookups,
            Arrivals arrivals,
            People people,
            JdbcClient jdbc,
            TransactionTemplate together) {
        this.staged = staged;
        this.leases = leases;
        this.lookups = lookups;
        this.arrivals = arrivals;
        this.people = people;
        this.jdbc = jdbc;
        this.together = together;
    }

    void bringIn(ImportLeases.Job job) {
        Actor by = actor(job);
        for (int block = 0; block < BLOCKS_IN_A_ROW; block++) {
            List<StagedRows.Document> documents =
                    staged.documents(job.id(), List.of(Outcome.GOOD), 0, ImportChecking.BLOCK);
            if (documents.isEmpty()) {
                together.executeWithoutResult(status -> jdbc.sql("DELETE FROM import_part WHERE job_id = :job")
                        .param("job", job.id())
                        .update());
                leases.end(job, ImportState.DONE, null);
                return;
            }
            together.executeWithoutResult(status -> bringIn(job, by, documents));
        }
        leases.release(job);
    }

    private void bringIn(ImportLeases.Job job, Actor by, List<StagedRows.Document> documents) {
        Set<String> here = lookups.alreadyHere(
                job.kind(),
                documents.stream().map(StagedRows.Document::identity).collect(Collectors.toSet()));
        List<StagedRows.Document> fresh = documents.stream()
                .filter(document -> !here.contains(document.identity()))
                .toList();
        List<List<Map<String, String>>> cells = fresh.stream()
                .map(document -> document.rows().stream().map(staged::cells).toList())
                .toList();
        if (job.kind() == ImportKind.VENDORS) {
            arrivals.vendors(by, cells.stream().map(rows -> rows.get(0)).toList(), job);
        } else {
            arrivals.invoices(by, cells, job);
        }
        int in = marked(job, fresh, Outcome.IN, "");
        int late = marked(
                job,
                documents.stream().filter(document -> !fresh.contains(document)).toList(),
                Outcome.DUPLICATE,
                "came in meanwhile");
        leases.count(job, 0, -late, 0, late, in);
    }

    private int marked(ImportLeases.Job job, List<StagedRows.Document> documents, Outcome outcome, String why) {
        List<Staged> rows = documents.stream()
                .flatMap(document -> document.rows().stream())
                .map(row -> row.as(outcome, "", why))
                .toList();
        staged.outcome(job.id(), rows);
        return rows.size();
    }

    /** Whoever wanted it brought in does it. */
    private Actor actor(ImportLeases.Job job) {
        People.Person person = people.find(job.wantedBy())
                .orElseThrow(
                        () -> new Unreadable("Whoever brought this file in may not sign in any more. Send it again."));
        return new Actor(person.id(), person.name(), person.roles(), job.day(), Instant.now(), "import");
    }
}
