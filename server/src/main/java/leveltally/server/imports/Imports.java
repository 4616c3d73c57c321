package leveltally.server.imports;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Takes files in and keeps what was said of them; {@link ImportWorker} does the work. */
@Service
class Imports {
    static final int PART = 1 << 20;
    private static final long MOST_BYTES = 200L << 20;
    private static final int MOST_DOCUMENTS = 2_000;
    private static final int LARGEST_DOCUMENT = 4 << 20;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final WorkIds ids;
    private final AuditTrail audit;
    private final StagedRows staged;
    private final Senders senders;
    private final Vendors vendors;

    Imports(
            EntityManager entities,
            JdbcClient jdbc,
            JsonMapper json,
            WorkIds ids,
            AuditTrail audit,
            StagedRows staged,
            Senders senders,
            Vendors vendors) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.json = json;
        this.ids = ids;
        this.audit = audit;
        this.staged = staged;
        this.senders = senders;
        this.vendors = vendors;
    }

    /** A file as it was sent. */
    interface Sent {
        String name();

        InputStream open() throws IOException;
    }

    static Deed deed(ImportKind kind) {
        return kind == ImportKind.VENDORS ? Deed.ENTER_VENDOR : Deed.ENTER_INVOICE;
    }

    /** Keeps what was sent, part by part, so that memory stays flat and any process can go on with it. */
    @Transactional
    long take(Actor by, ImportKind kind, List<? extends Sent> files) throws IOException {
        by.mayDo(deed(kind));
        if (files.isEmpty()) {
            throw Refusal.invalidField("no-file", "file", "Choose a file first.");
        }
        if (kind != ImportKind.UBL && files.size() > 1 || files.size() > MOST_DOCUMENTS) {
            throw Refusal.invalidField(
                    "too-many-files", "file", "Send one CSV file at a time, or at most 2,000 UBL documents.");
        }
        ImportJobEntity job = new ImportJobEntity();
        job.id = ids.supply().next();
        job.kind = kind;
        String name = files.size() == 1 ? files.get(0).name() : files.size() + " documents";
        job.fileName = name.substring(Math.max(0, name.length() - 120));
        job.state = ImportState.RECEIVED;
        job.personId = by.person().value();
        job.madeAt = by.now();
        job.businessDate = by.today();
        job.choices = "{}";
        entities.persist(job);
        entities.flush();
        hand(job.id, by);
        int position = 0;
        for (Sent file : files) {
            try (InputStream in = file.open()) {
                byte[] part;
                int most = kind == ImportKind.UBL ? LARGEST_DOCUMENT + 1 : PART;
                while ((part = in.readNBytes(most)).length > 0) {
                    if (kind == ImportKind.UBL && part.length > LARGEST_DOCUMENT) {
                        throw Refusal.invalidField(
                                "document-too-large",
                                "file",
                                file.name() + " is larger than 4 MB, more than an invoice needs.");
                    }
                    job.bytes += part.length;
                    if (job.bytes > MOST_BYTES) {
                        throw Refusal.invalidField(
                                "file-too-large", "file", "The file is larger than 200 MB. Send it in pieces.");
                    }
                    jdbc.sql("INSERT INTO import_part (job_id, position, content) VALUES (:job, :position, :content)")
                            .param("job", job.id)
                            .param("position", position++)
                            .param("content", part)
                            .update();
                }
            }
        }
        if (job.bytes == 0) {
            throw Refusal.invalidField("file-empty", "file", "The file is empty. Choose another.");
        }
        audit.record(by, "send file", "import " + job.id, Map.of("file", job.fileName, "bytes", job.bytes));
        return job.id;
    }

    private void hand(long job, Actor by) {
        jdbc.sql("INSERT IGNORE INTO import_hand (job_id, person_id) VALUES (:job, :person)")
                .param("job", job)
                .param("person", by.person().value())
                .update();
    }

    /** Says how a file is read, and has it checked again; whoever does is a hand in all it brings. */
    @Transactional
    void choose(Actor by, long id, Choices chosen) {
        ImportJobEntity job = locked(by, id);
        checkAgain(job);
        job.choices = json.writeValueAsString(chosen);
        hand(id, by);
        audit.record(by, "choose how to read file", "import " + id, Map.of("choices", job.choices));
    }

    /** Says whose documents these are; they are known from now on, and the file is checked again. */
    @Transactional
    void belongsTo(Actor by, long id, int sender, long vendor) {
        ImportJobEntity job = locked(by, id);
        StagedRows.Unknown unknown = staged.unknown(id, sender);
        if (unknown == null) {
            throw Refusal.conflict(
                    "sender-known", "This sender is known by now, or the file was checked again. Look at it again.");
        }
        vendors.get(new VendorId(vendor));
        checkAgain(job);
        senders.keep(by, unknown.party(), vendor);
        hand(id, by);
    }

    private static void checkAgain(ImportJobEntity job) {
        must(
                job,
                Set.of(ImportState.COLUMNS, ImportState.CHECKED, ImportState.FAILED),
                "how it is read cannot be changed now");
        job.state = ImportState.RECEIVED;
        job.trouble = null;
    }

    /** Wants the good documents brought in; all of them must be good unless {@code onlyGood}. */
    @Transactional
    void bringIn(Actor by, long id, boolean onlyGood) {
        ImportJobEntity job = locked(by, id);
        must(job, Set.of(ImportState.CHECKED), "it cannot be brought in now");
        if (job.refused > 0 && !onlyGood) {
            throw Refusal.conflict(
                    "rows-refused",
                    job.refused + " rows are refused, so not all can come in. Mend the file and send it again, or "
                            + "bring in only the documents that are good.");
        }
        if (job.good == 0) {
            throw Refusal.conflict(
                    "nothing-good", "No document of this file is good and new, so there is nothing to bring in.");
        }
        job.state = ImportState.WANTED;
        job.businessDate = by.today();
        job.wantedBy = by.person().value();
        hand(id, by);
        audit.record(by, "bring in file", "import " + id, Map.of("good", job.good, "refused", job.refused));
    }

    @Transactional
    void discard(Actor by, long id) {
        ImportJobEntity job = locked(by, id);
        must(job, Set.of(ImportState.COLUMNS, ImportState.CHECKED, ImportState.FAILED), "it cannot be discarded now");
        job.state = ImportState.DISCARDED;
        for (String table : List.of("import_part", "import_row", "import_party")) {
            jdbc.sql("DELETE FROM " + table + " WHERE job_id = :job")
                    .param("job", id)
                    .update();
        }
        audit.record(by, "discard file", "import " + id, Map.of());
    }

    private static void must(ImportJobEntity job, Set<ImportState> states, String otherwise) {
        if (!states.contains(job.state)) {
            throw Refusal.conflict(
                    "wrong-state", "This file " + job.state.words() + ", so " + otherwise + ". Look at it again.");
        }
    }

    private ImportJobEntity locked(Actor by, long id) {
        by.mayDo(Deed.ENTER_INVOICE);
        ImportJobEntity job = entities.find(ImportJobEntity.class, id, LockModeType.PESSIMISTIC_WRITE);
        if (job == null) {
            throw unknown();
        }
        by.mayDo(deed(job.kind));
        return job;
    }

    static Refusal unknown() {
        return Refusal.notFound("no-import", "There is no such file. Choose one from the list.");
    }

    @Transactional(readOnly = true)
    ImportJobEntity get(long id) {
        ImportJobEntity job = entities.find(ImportJobEntity.class, id);
        if (job == null) {
            throw unknown();
        }
        return job;
    }

    @Transactional(readOnly = true)
    List<ImportJobEntity> recent() {
        return entities.createQuery("select j from ImportJobEntity j order by j.id desc", ImportJobEntity.class)
                .setMaxResults(50)
                .getResultList();
    }

    /** One row that did not simply come in. */
    record RowOutcome(
            int line, String place, String outcome, String column, String reason, String identity, String amount) {}

    /** Senders of a file that nobody knows. */
    @Transactional(readOnly = true)
    List<StagedRows.Unknown> unknownSenders(long id) {
        return staged.unknown(id);
    }

    /** Rows with an outcome, by line, a page after a line. */
    @Transactional(readOnly = true)
    List<RowOutcome> rows(long id, @Nullable String outcome, int after, int most) {
        return jdbc.sql("""
                        SELECT line, place, outcome, column_name, reason, identity, amount FROM import_row
                        WHERE job_id = :job AND line > :after AND (:outcome IS NULL OR outcome = :outcome)
                        ORDER BY line LIMIT :most
                        """)
                .param("job", id)
                .param("after", after)
                .param("outcome", outcome)
                .param("most", most)
                .query((r, n) -> new RowOutcome(
                        r.getInt("line"),
                        r.getString("place"),
                        r.getString("outcome"),
                        r.getString("column_name"),
                        r.getString("reason"),
                        r.getString("identity"),
                        r.getString("amount")))
                .list();
    }
}
