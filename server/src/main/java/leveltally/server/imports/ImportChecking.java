package leveltally.server.imports;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.imports.Column;
import leveltally.core.imports.Finding;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.imports.Mapping;
import leveltally.core.imports.Reading;
import leveltally.core.imports.VendorRow;
import leveltally.server.imports.StagedRows.Outcome;
import leveltally.server.imports.StagedRows.Staged;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Checks a file: first row by row, then document by document over all its rows, wherever they stand. Nothing of it comes in
 * before.
 */
@Component
class ImportChecking {
    static final int BLOCK = 500;

    private final StagedRows staged;
    private final ImportParts parts;
    private final ImportLeases leases;
    private final ImportLookups lookups;
    private final Senders senders;
    private final WholeDocuments whole;
    private final TransactionTemplate together;

    ImportChecking(
            StagedRows staged,
            ImportParts parts,
            ImportLeases leases,
            ImportLookups lookups,
            Senders senders,
            WholeDocuments whole,
            TransactionTemplate together) {
        this.staged = staged;
        this.parts = parts;
        this.leases = leases;
        this.lookups = lookups;
        this.senders = senders;
        this.whole = whole;
        this.together = together;
    }

    void check(ImportLeases.Job job) {
        together.executeWithoutResult(status -> {
            staged.clear(job.id());
            leases.restart(job);
        });
        Rows rows = new Rows(job);
        if (job.kind() == ImportKind.UBL) {
            documents(job, rows);
        } else if (!table(job, rows)) {
            return;
        }
        rows.flush();
        together.executeWithoutResult(status -> staged.gather(job.id()));
        if (job.kind() != ImportKind.VENDORS) {
            whole.check(job);
        }
        leases.end(job, ImportState.CHECKED, null);
    }

    private boolean table(ImportLeases.Job job, Rows rows) {
        List<Column> columns = job.kind() == ImportKind.VENDORS ? Column.VENDORS : Column.INVOICES;
        Mapping[] mapping = new Mapping[1];
        CsvRows.read(
                parts.all(job.id()),
                headers -> {
                    mapping[0] = Mapping.of(columns, headers, job.choices().chosenColumns());
                    leases.headers(job, headers);
                    if (!mapping[0].missing().isEmpty()) {
                        leases.end(
                                job,
                                ImportState.COLUMNS,
                                "These columns are missing: " + String.join(", ", mapping[0].missing())
                                        + ". Say which column of the file stands for each, or mend the file.");
                        return false;
                    }
                    return true;
                },
                (line, record) -> rows.row(line, String.valueOf(line), mapping[0].cells(record)));
        return mapping[0].missing().isEmpty();
    }

    private void documents(ImportLeases.Job job, Rows rows) {
        int count = parts.count(job.id());
        int line = 0;
        Map<String, StagedRows.Unknown> unknown = new LinkedHashMap<>();
        for (int i = 0; i < count; i++) {
            String place = "document " + (i + 1);
            try (InputStream file = new ByteArrayInputStream(parts.part(job.id(), i))) {
                UblDocument document = UblDocument.read(file);
                Optional<String> vendor = senders.vendor(document.party());
                if (vendor.isEmpty()) {
                    unknown.merge(
                            document.party().key(),
                            new StagedRows.Unknown(unknown.size(), document.party(), 1),
                            (a, b) -> new StagedRows.Unknown(a.position(), a.party(), a.documents() + 1));
                    throw new Unreadable("nobody is known here who calls themselves “"
                            + document.party().name() + "”; say whose it is, on this page");
                }
                int own = 0;
                for (Map<String, String> row :
                        document.rows(vendor.get(), named -> account(job, named, vendor.get()))) {
                    rows.row(++line, place + ", line " + ++own, row);
                }
            } catch (Unreadable unreadable) {
                rows.add(StagedRows.refused(
                        ++line, place, "", List.of(new Finding("document", unreadable.getMessage()))));
            } catch (IOException neverOfMemory) {
                throw new UncheckedIOException(neverOfMemory);
            }
        }
        together.executeWithoutResult(status -> unknown.values().forEach(sender -> staged.unknown(job.id(), sender)));
    }

    /** What a document names; else what was chosen for the file, else the vendor's usual. */
    private String account(ImportLeases.Job job, String named, String vendor) {
        String chosen = job.choices().reading().account();
        return named.isEmpty() || !lookups.isAccount(named)
                ? chosen.isEmpty() ? lookups.usualAccount(vendor) : chosen
                : named;
    }

    /** The rows of one check, written and counted in blocks. */
    private final class Rows {
        private final ImportLeases.Job job;
        private final Reading how;
        private final ImportLookups.Known known;
        private final List<Staged> block = new ArrayList<>();
        private final Set<String> vendors = new HashSet<>();

        Rows(ImportLeases.Job job) {
            this.job = job;
            this.how = job.choices().reading();
            this.known = lookups.known();
        }

        void row(int line, String place, Map<String, String> cells) {
            add(job.kind() == ImportKind.VENDORS ? vendor(line, place, cells) : invoice(line, place, cells));
        }

        private Staged invoice(int line, String place, Map<String, String> cells) {
            known.prepare(cells.getOrDefault("vendor", ""));
            InvoiceRow.Read read = InvoiceRow.read(cells, known, how);
            InvoiceRow row = read.row();
            return row == null
                    ? StagedRows.refused(line, place, InvoiceRow.identity(cells), read.findings())
                    : staged.good(line, place, row.identity(), row.amount().toString(), cells);
        }

        private Staged vendor(int line, String place, Map<String, String> cells) {
            VendorRow.Read read = VendorRow.read(cells, known.currencies());
            VendorRow row = read.row();
            if (row == null) {
                return StagedRows.refused(line, place, cells.getOrDefault("number", ""), read.findings());
            }
            Staged good = staged.good(line, place, row.identity(), "", cells);
            return vendors.add(row.identity()) ? good : good.as(Outcome.DUPLICATE, "", "stands in this file twice");
        }

        void add(Staged row) {
            block.add(row);
            if (block.size() >= BLOCK) {
                flush();
            }
        }

        void flush() {
            Set<String> here = lookups.alreadyHere(
                    job.kind(),
                    block.stream()
                            .filter(row -> row.outcome() == Outcome.GOOD)
                            .map(Staged::identity)
                            .collect(Collectors.toSet()));
            List<Staged> rows = block.stream()
                    .map(row -> row.outcome() == Outcome.GOOD && here.contains(row.identity())
                            ? row.as(Outcome.DUPLICATE, "", "is here already")
                            : row)
                    .toList();
            together.executeWithoutResult(status -> {
                staged.write(job.id(), rows);
                leases.count(
                        job,
                        rows.size(),
                        counted(rows, Outcome.GOOD),
                        counted(rows, Outcome.REFUSED),
                        counted(rows, Outcome.DUPLICATE),
                        0);
            });
            block.clear();
        }
    }

    private static int counted(List<Staged> rows, Outcome outcome) {
        return (int) rows.stream().filter(row -> row.outcome() == outcome).count();
    }
}
