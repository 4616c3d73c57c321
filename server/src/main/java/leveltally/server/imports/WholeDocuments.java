package leveltally.server.imports;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.imports.Finding;
import leveltally.core.imports.InvoiceDocument;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.imports.Reading;
import leveltally.server.imports.StagedRows.Outcome;
import leveltally.server.imports.StagedRows.Staged;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Holds the rows of a document together: it comes in whole or not at all. */
@Component
class WholeDocuments {
    private final StagedRows staged;
    private final ImportLeases leases;
    private final ImportLookups lookups;
    private final TransactionTemplate together;

    WholeDocuments(StagedRows staged, ImportLeases leases, ImportLookups lookups, TransactionTemplate together) {
        this.staged = staged;
        this.leases = leases;
        this.lookups = lookups;
        this.together = together;
    }

    /** One row refused, or rows that do not go together, refuse all of them. */
    void check(ImportLeases.Job job) {
        ImportLookups.Known known = lookups.known();
        Reading how = job.choices().reading();
        int after = 0;
        while (true) {
            List<StagedRows.Document> documents =
                    staged.documents(job.id(), List.of(Outcome.GOOD, Outcome.REFUSED), after, ImportChecking.BLOCK);
            if (documents.isEmpty()) {
                return;
            }
            List<Staged> changed = new ArrayList<>();
            for (StagedRows.Document document : documents) {
                after = document.firstLine();
                List<Staged> rows = document.rows();
                if (rows.stream().anyMatch(row -> row.outcome() == Outcome.GOOD)) {
                    changed.addAll(refusedTogether(rows, known, how));
                }
            }
            together.executeWithoutResult(status -> {
                staged.outcome(job.id(), changed);
                leases.count(job, 0, -changed.size(), changed.size(), 0, 0);
            });
        }
    }

    /** The good rows of a document that is none, now refused; none when it is whole. */
    private List<Staged> refusedTogether(List<Staged> rows, ImportLookups.Known known, Reading how) {
        Optional<Staged> bad =
                rows.stream().filter(row -> row.outcome() == Outcome.REFUSED).findFirst();
        Finding why;
        if (bad.isPresent()) {
            why = new Finding(
                    bad.get().column(),
                    "row " + bad.get().place() + " of the same document is refused, and a document comes in whole");
        } else {
            InvoiceDocument.Read read = InvoiceDocument.of(rows.stream()
                    .map(row -> {
                        Map<String, String> cells = staged.cells(row);
                        known.prepare(cells.getOrDefault("vendor", ""));
                        return InvoiceRow.read(cells, known, how).row();
                    })
                    .toList());
            if (read.finding() == null) {
                return List.of();
            }
            why = read.finding();
        }
        return rows.stream()
                .filter(row -> row.outcome() == Outcome.GOOD)
                .map(row -> row.as(Outcome.REFUSED, why.column(), why.column() + ": " + why.reason()))
                .toList();
    }
}
