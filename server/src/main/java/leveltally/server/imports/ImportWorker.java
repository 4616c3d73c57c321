package leveltally.server.imports;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.imports.Column;
import leveltally.core.imports.Finding;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.imports.Mapping;
import leveltally.core.imports.VendorRow;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.people.People;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/**
 * Checks files and brings them in, in the background and block by block. All state is in the database: a process that
 * stops leaves its job to whichever finds it silent for half a minute.
 */
@Component
class ImportWorker {
    private static final Logger LOG = LoggerFactory.getLogger(ImportWorker.class);
    private static final int BLOCK = 500;
    private static final int SILENT_SECONDS = 30;

    private final JdbcClient jdbc;
    private final JdbcTemplate batch;
    private final JsonMapper json;
    private final TransactionTemplate together;
    private final ImportLookups lookups;
    private final Arrivals arrivals;
    private final People people;

    ImportWorker(
            JdbcClient jdbc,
            JdbcTemplate batch,
            JsonMapper json,
            TransactionTemplate together,
            ImportLookups lookups,
            Arrivals arrivals,
            People people) {
        this.jdbc = jdbc;
        this.batch = batch;
        this.json = json;
        this.together = together;
        this.lookups = lookups;
        this.arrivals = arrivals;
        this.people = people;
    }

    private record Job(
            long id,
            ImportKind kind,
            ImportState state,
            PersonId person,
            @Nullable String mapping,
            java.time.LocalDate day) {}

    private record Staged(int line, String outcome, String column, String reason, String identity, String content) {}

    @Scheduled(fixedDelay = 700)
    void work() {
        Optional<Job> claimed = claim();
        claimed.ifPresent(job -> {
            try {
                if (job.state() == ImportState.RECEIVED || job.state() == ImportState.CHECKING) {
                    check(job);
                } else {
                    bringIn(job);
                }
            } catch (Unreadable unreadable) {
                end(job, ImportState.FAILED, unreadable.getMessage());
            } catch (Refusal refused) {
                end(job, ImportState.FAILED, refused.sentence());
            } catch (RuntimeException broken) {
                LOG.error("import {} failed", job.id(), broken);
                end(
                        job,
                        ImportState.FAILED,
                        "Something went wrong on our side. What came in stays; send the rest again.");
            }
        });
    }

    /** Takes one waiting job for this process, or one whose process fell silent. */
    private Optional<Job> claim() {
        Optional<Job> found = jdbc.sql("""
                        SELECT id, kind, state, person_id, mapping, business_date FROM import_job
                        WHERE state IN ('RECEIVED', 'CHECKING', 'WANTED', 'BRINGING') AND alive_at < :silent
                        ORDER BY id LIMIT 1
                        """)
                .param("silent", Timestamp.from(Instant.now().minusSeconds(SILENT_SECONDS)))
                .query((r, n) -> new Job(
                        r.getLong(1),
                        ImportKind.valueOf(r.getString(2)),
                        ImportState.valueOf(r.getString(3)),
                        new PersonId(r.getLong(4)),
                        r.getString(5),
                        r.getObject(6, java.time.LocalDate.class)))
                .optional();
        return found.filter(job -> {
            boolean checking = job.state() == ImportState.RECEIVED || job.state() == ImportState.CHECKING;
            return jdbc.sql("UPDATE import_job SET alive_at = :now, state = :state, version = version + 1"
                                    + " WHERE id = :id AND state = :was AND alive_at < :silent")
                            .param("now", Timestamp.from(Instant.now()))
                            .param("state", (checking ? ImportState.CHECKING : ImportState.BRINGING).name())
                            .param("id", job.id())
                            .param("was", job.state().name())
                            .param("silent", Timestamp.from(Instant.now().minusSeconds(SILENT_SECONDS)))
                            .update()
                    == 1;
        });
    }

    // ------------------------------------------------------------------ checking

    private void check(Job job) {
        together.executeWithoutResult(status -> jdbc.sql("DELETE FROM import_row WHERE job_id = :job")
                .param("job", job.id())
                .update());
        Checking checking = new Checking(job);
        if (job.kind() == ImportKind.UBL) {
            documents(job, checking);
        } else if (!table(job, checking)) {
            return;
        }
        checking.flush();
        end(job, ImportState.CHECKED, null);
    }

    private boolean table(Job job, Checking checking) {
        List<Column> columns = job.kind() == ImportKind.VENDORS ? Column.VENDORS : Column.INVOICES;
        Map<String, String> chosen = chosen(job);
        Mapping[] mapping = new Mapping[1];
        CsvRows.read(
                parts(job.id()),
                headers -> {
                    mapping[0] = Mapping.of(columns, headers, chosen);
                    jdbc.sql("UPDATE import_job SET headers = :headers WHERE id = :id")
                            .param("headers", json.writeValueAsString(headers))
                            .param("id", job.id())
                            .update();
                    if (!mapping[0].missing().isEmpty()) {
                        end(
                                job,
                                ImportState.COLUMNS,
                                "These columns are missing: " + String.join(", ", mapping[0].missing())
                                        + ". Say which column of the file stands for each, or mend the file.");
                        return false;
                    }
                    return true;
                },
                (line, record) -> checking.row(line, mapping[0].cells(record)));
        return mapping[0].missing().isEmpty();
    }

    private void documents(Job job, Checking checking) {
        int count = jdbc.sql("SELECT COUNT(*) FROM import_part WHERE job_id = :job")
                .param("job", job.id())
                .query(Integer.class)
                .single();
        for (int i = 0; i < count; i++) {
            try (InputStream document = new ByteArrayInputStream(part(job.id(), i))) {
                // a line number is the document's and its line's: 2003 is the third line of the second
                int line = (i + 1) * 1000;
                for (Map<String, String> row : UblDocument.rows(document, lookups::usualAccount)) {
                    checking.row(++line, row);
                }
            } catch (Unreadable unreadable) {
                checking.refuse(
                        (i + 1) * 1000, "document " + (i + 1), new Finding("document", unreadable.getMessage()));
            } catch (java.io.IOException neverOfMemory) {
                throw new java.io.UncheckedIOException(neverOfMemory);
            }
        }
    }

    private Map<String, String> chosen(Job job) {
        String mapping = job.mapping();
        if (mapping == null) {
            return Map.of();
        }
        Map<String, String> chosen = new java.util.HashMap<>();
        json.readTree(mapping)
                .properties()
                .forEach(entry -> chosen.put(entry.getKey(), entry.getValue().asString()));
        return chosen;
    }

    /** The parts of a file as one stream, each read when it is needed. */
    private InputStream parts(long job) {
        int count = jdbc.sql("SELECT COUNT(*) FROM import_part WHERE job_id = :job")
                .param("job", job)
                .query(Integer.class)
                .single();
        return new SequenceInputStream(new Enumeration<InputStream>() {
            private int next;

            @Override
            public boolean hasMoreElements() {
                return next < count;
            }

            @Override
            public InputStream nextElement() {
                if (next >= count) {
                    throw new NoSuchElementException();
                }
                return new ByteArrayInputStream(part(job, next++));
            }
        });
    }

    private byte[] part(long job, int position) {
        return jdbc.sql("SELECT content FROM import_part WHERE job_id = :job AND position = :position")
                .param("job", job)
                .param("position", position)
                .query((r, n) -> r.getBytes(1))
                .single();
    }

    /** The rows of one check: blocks of them are compared with what is here, written, and counted. */
    private final class Checking {
        private final Job job;
        private final ImportLookups.Known known;
        private final List<Staged> block = new ArrayList<>();
        private final Set<String> seen = new HashSet<>();
        private String last = "";
        private boolean lastGood;
        private String lastHead = "";

        Checking(Job job) {
            this.job = job;
            this.known = lookups.known();
        }

        void row(int line, Map<String, String> cells) {
            if (job.kind() == ImportKind.VENDORS) {
                makeRoom(false);
                VendorRow.Read read = VendorRow.read(cells);
                VendorRow row = read.row();
                if (row == null) {
                    refuse(
                            line,
                            cells.getOrDefault("number", ""),
                            read.findings().get(0),
                            read.findings());
                } else {
                    good(line, row.identity(), cells, false);
                }
                return;
            }
            known.prepare(cells.getOrDefault("vendor", ""));
            InvoiceRow.Read read = InvoiceRow.read(cells, known);
            InvoiceRow row = read.row();
            makeRoom(row != null && row.identity().equals(last));
            String currency = cells.getOrDefault("currency", "");
            if (row != null
                    && !currency.isEmpty()
                    && !currency.equals(row.amount().currency().getCurrencyCode())) {
                Finding other = new Finding(
                        "currency",
                        "the document is in " + currency + ", the vendor in "
                                + row.amount().currency());
                refuse(line, row.identity(), other);
            } else if (row == null) {
                String name = cells.getOrDefault("vendor", "") + " " + cells.getOrDefault("reference", "");
                refuse(line, name, read.findings().get(0), read.findings());
                last = "";
            } else {
                String head = row.invoiceDate() + " " + row.ledgerDate();
                boolean further = row.identity().equals(last);
                if (further && !lastGood) {
                    refuse(
                            line,
                            row.identity(),
                            new Finding("reference", "the line before it of the same invoice is refused"));
                } else if (further && !head.equals(lastHead)) {
                    refuse(
                            line,
                            row.identity(),
                            new Finding("invoice_date", "differs from the line before it of the same invoice"));
                } else {
                    good(line, row.identity(), cells, further);
                }
                last = row.identity();
                lastHead = head;
                lastGood = !block.isEmpty()
                        && !block.get(block.size() - 1).outcome().equals("REFUSED");
            }
        }

        /** A block ends between two invoices, so that the lines of one share one fate. */
        private void makeRoom(boolean further) {
            if (block.size() >= BLOCK && !further) {
                flush();
            }
        }

        private void good(int line, String identity, Map<String, String> cells, boolean further) {
            boolean again = !further && !seen.add(identity);
            block.add(new Staged(
                    line,
                    again ? "DUPLICATE" : further ? outcomeBefore() : "GOOD",
                    "",
                    again ? "stands in this file twice" : "",
                    identity,
                    json.writeValueAsString(cells)));
        }

        /** A further line shares the fate of the line before it. */
        private String outcomeBefore() {
            return block.isEmpty() ? "GOOD" : block.get(block.size() - 1).outcome();
        }

        void refuse(int line, String identity, Finding first) {
            refuse(line, identity, first, List.of(first));
        }

        private void refuse(int line, String identity, Finding first, List<Finding> all) {
            String reason =
                    all.stream().map(f -> f.column() + ": " + f.reason()).collect(Collectors.joining("; "));
            block.add(new Staged(
                    line,
                    "REFUSED",
                    first.column(),
                    reason.substring(0, Math.min(300, reason.length())),
                    identity.substring(0, Math.min(120, identity.length())),
                    "{}"));
        }

        void flush() {
            Set<String> here = lookups.alreadyHere(
                    job.kind(),
                    block.stream()
                            .filter(row -> row.outcome().equals("GOOD"))
                            .map(Staged::identity)
                            .collect(Collectors.toSet()));
            List<Staged> rows = block.stream()
                    .map(row -> row.outcome().equals("GOOD") && here.contains(row.identity())
                            ? new Staged(row.line(), "DUPLICATE", "", "is here already", row.identity(), "{}")
                            : row)
                    .toList();
            int good = counted(rows, "GOOD");
            int refused = counted(rows, "REFUSED");
            int duplicates = counted(rows, "DUPLICATE");
            together.executeWithoutResult(status -> {
                batch.batchUpdate(
                        "INSERT INTO import_row (job_id, line, outcome, column_name, reason, identity, content)"
                                + " VALUES (?, ?, ?, ?, ?, ?, ?)",
                        rows.stream()
                                .map(row -> new Object[] {
                                    job.id(),
                                    row.line(),
                                    row.outcome(),
                                    row.column(),
                                    row.reason(),
                                    row.identity(),
                                    row.content()
                                })
                                .toList());
                count(job, rows.size(), good, refused, duplicates, 0);
            });
            block.clear();
        }

        private int counted(List<Staged> rows, String outcome) {
            return (int)
                    rows.stream().filter(row -> row.outcome().equals(outcome)).count();
        }
    }

    private void count(Job job, int read, int good, int refused, int duplicates, int broughtIn) {
        jdbc.sql("""
                        UPDATE import_job SET rows_read = rows_read + :read, good = good + :good, refused = refused + :refused,
                          duplicates = duplicates + :duplicates, brought_in = brought_in + :in, alive_at = :now,
                          version = version + 1 WHERE id = :id
                        """)
                .param("read", read)
                .param("good", good)
                .param("refused", refused)
                .param("duplicates", duplicates)
                .param("in", broughtIn)
                .param("now", Timestamp.from(Instant.now()))
                .param("id", job.id())
                .update();
    }

    // ------------------------------------------------------------------ bringing in

    /** A block at a time: what comes in and the mark that it came in are one transaction, so nothing comes in twice. */
    private void bringIn(Job job) {
        Actor by = actor(job);
        while (true) {
            List<Staged> rows = next(job);
            if (rows.isEmpty()) {
                break;
            }
            together.executeWithoutResult(status -> {
                Set<String> here = lookups.alreadyHere(
                        job.kind(), rows.stream().map(Staged::identity).collect(Collectors.toSet()));
                List<Staged> fresh = rows.stream()
                        .filter(row -> !here.contains(row.identity()))
                        .toList();
                List<Map<String, String>> cells =
                        fresh.stream().map(row -> cells(row.content())).toList();
                if (job.kind() == ImportKind.VENDORS) {
                    arrivals.vendors(by, cells, "import " + job.id());
                } else {
                    arrivals.invoices(by, cells, "import " + job.id());
                }
                mark(job, fresh, "IN");
                mark(
                        job,
                        rows.stream()
                                .filter(row -> here.contains(row.identity()))
                                .toList(),
                        "DUPLICATE");
                int late = rows.size() - fresh.size();
                count(job, 0, -late, 0, late, fresh.size());
            });
        }
        together.executeWithoutResult(status -> jdbc.sql("DELETE FROM import_part WHERE job_id = :job")
                .param("job", job.id())
                .update());
        end(job, ImportState.DONE, null);
    }

    /** The next good rows, with all lines of the last invoice among them. */
    private List<Staged> next(Job job) {
        List<Staged> rows = good(job, BLOCK + 200);
        if (rows.size() <= BLOCK) {
            return rows;
        }
        int end = BLOCK;
        while (end < rows.size()
                && rows.get(end).identity().equals(rows.get(end - 1).identity())) {
            end++;
        }
        return rows.subList(0, end);
    }

    private List<Staged> good(Job job, int most) {
        return jdbc.sql("SELECT line, outcome, column_name, reason, identity, content FROM import_row"
                        + " WHERE job_id = :job AND outcome = 'GOOD' ORDER BY line LIMIT :most")
                .param("job", job.id())
                .param("most", most)
                .query((r, n) -> new Staged(
                        r.getInt(1), r.getString(2), r.getString(3), r.getString(4), r.getString(5), r.getString(6)))
                .list();
    }

    private Map<String, String> cells(String content) {
        Map<String, String> cells = new java.util.HashMap<>();
        json.readTree(content)
                .properties()
                .forEach(entry -> cells.put(entry.getKey(), entry.getValue().asString()));
        return cells;
    }

    private void mark(Job job, List<Staged> rows, String outcome) {
        batch.batchUpdate(
                "UPDATE import_row SET outcome = ? WHERE job_id = ? AND line = ?",
                rows.stream()
                        .map(row -> new Object[] {outcome, job.id(), row.line()})
                        .toList());
    }

    private Actor actor(Job job) {
        People.Person person = people.find(job.person())
                .orElseThrow(() -> new Unreadable("Whoever sent this file may not sign in any more. Send it again."));
        return new Actor(person.id(), person.name(), person.roles(), job.day(), Instant.now(), "import");
    }

    private void end(Job job, ImportState state, @Nullable String trouble) {
        together.executeWithoutResult(status -> jdbc.sql(
                        "UPDATE import_job SET state = :state, trouble = :trouble, version = version + 1 WHERE id = :id")
                .param("state", state.name())
                .param("trouble", trouble == null ? null : trouble.substring(0, Math.min(500, trouble.length())))
                .param("id", job.id())
                .update());
    }
}
