package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.bankfiles.Laid;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordWriter;
import leveltally.core.bankfiles.StoredRecords;
import leveltally.core.bankfiles.Sums;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Whether the files the bank goes by still say what was paid (law L5): their bytes, record by record. */
@Service
public class FileTruth {
    private static final int AT_ONCE = 2_000;
    private static final int MOST_FINDINGS = 20;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final FileParts parts;
    private final JsonMapper json;

    FileTruth(EntityManager entities, JdbcClient jdbc, BankAccounts accounts, FileParts parts, JsonMapper json) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.parts = parts;
        this.json = json;
    }

    /**
     * Reads every file the bank may go by, byte by byte, against the payments as they are.
     *
     * @return a sentence for each record that says something else
     */
    @Transactional(readOnly = true)
    public List<String> untrueRecords() {
        List<String> findings = new ArrayList<>();
        jdbc.sql("SELECT id FROM bank_file WHERE state <> :refused ORDER BY id")
                .param("refused", FileState.REFUSED.name())
                .query(Long.class)
                .list()
                .forEach(id -> findings.addAll(untrue(entities.find(BankFileEntity.class, id))));
        return findings;
    }

    /**
     * The events of a batch that stand in a file the bank may go by, but not in its bytes as the payment has them. Only the records of
     * these are laid anew; what stands before them is passed over.
     */
    @Transactional(readOnly = true)
    public Set<Long> untold(BatchId batch) {
        Set<Long> untold = new HashSet<>();
        jdbc.sql(
                        "SELECT DISTINCT f.id FROM bank_event e JOIN bank_file_item x ON x.event_id = e.id"
                                + " JOIN bank_file f ON f.id = x.file_id AND f.state <> :refused AND NOT f.anew WHERE e.batch_id = :batch")
                .param("refused", FileState.REFUSED.name())
                .param("batch", batch.value())
                .query(Long.class)
                .list()
                .forEach(id -> untold.addAll(untold(entities.find(BankFileEntity.class, id), batch)));
        return untold;
    }

    private List<Long> untold(BankFileEntity file, BatchId batch) {
        List<Long> untold = new ArrayList<>();
        Layout layout = layout(file);
        int issues = layout.recordsOf(BankFile.Item.Kind.ISSUE);
        int voids = layout.recordsOf(BankFile.Item.Kind.VOID);
        List<Integer> voidPlaces = issues == voids ? List.of() : voidPlaces(file.id);
        RecordWriter writer = writer(file, layout);
        try (InputStream content = parts.open(file.id)) {
            StoredRecords written = new StoredRecords(layout, content);
            long at = 0;
            for (Placed one : placed(file.id, batch)) {
                long voidsBefore = voidPlaces.stream()
                        .filter(place -> place < one.position())
                        .count();
                long from = layout.before() + (one.position() - 1 - voidsBefore) * issues + voidsBefore * voids;
                for (; at < from; at++) {
                    written.next();
                }
                writer.goTo(one.position());
                boolean says = true;
                for (Laid record : writer.details(one.item())) {
                    says &= record.text().equals(written.next());
                    at++;
                }
                if (!says) {
                    untold.add(one.event());
                }
            }
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
        return untold;
    }

    private List<Integer> voidPlaces(long file) {
        return jdbc.sql(
                        "SELECT x.position FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id AND e.kind = :void"
                                + " WHERE x.file_id = :file")
                .param("void", BankFile.Item.Kind.VOID.name())
                .param("file", file)
                .query(Integer.class)
                .list();
    }

    private List<String> untrue(BankFileEntity file) {
        List<String> findings = new ArrayList<>();
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (InputStream content = new DigestInputStream(parts.open(file.id), digest)) {
                if (file.purpose == FilePurpose.POSITIVE_PAY) {
                    compare(file, content, findings);
                }
                content.transferTo(java.io.OutputStream.nullOutputStream());
            }
            if (!HexFormat.of().formatHex(digest.digest()).equals(file.contentHash)) {
                findings.add("Bank file " + file.serial + " is not what it was when it was made");
            }
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
        return findings;
    }

    /** What header and trailer add up is added up from the details; those are compared. */
    private void compare(BankFileEntity file, InputStream content, List<String> findings) throws IOException {
        Layout layout = layout(file);
        RecordWriter writer = writer(file, layout);
        StoredRecords written = new StoredRecords(layout, content);
        for (int i = 0; i < layout.before(); i++) {
            written.next();
        }
        int at = layout.before();
        for (int from = 1; from <= file.items; from += AT_ONCE) {
            for (Placed one : placed(file.id, from)) {
                BankFile.Item item = one.item();
                for (Laid record : writer.details(item)) {
                    String says = written.next();
                    at++;
                    if (!record.text().equals(says) && findings.size() < MOST_FINDINGS) {
                        findings.add("Bank file " + file.serial + ", record " + at + ": it says “"
                                + (says == null ? "" : says.strip()) + "”, the payment of check " + item.printed()
                                + " says “" + record.text().strip() + "”");
                    }
                }
            }
        }
        int behind = 0;
        while (written.next() != null) {
            behind++;
        }
        if (behind != layout.after()) {
            findings.add("Bank file " + file.serial + " has " + (at + behind) + " records, its events make "
                    + (at + layout.after()));
        }
    }

    private Layout layout(BankFileEntity file) {
        return BankLayoutFile.read(
                entities.find(LayoutEntity.class, Objects.requireNonNull(file.layoutId)).definition, json);
    }

    /** Header and trailer are not written by it, so that it needs no sums. */
    private RecordWriter writer(BankFileEntity file, Layout layout) {
        BankAccount account = accounts.get(new BankAccountId(file.bankAccountId));
        return new RecordWriter(
                layout,
                new BankFile.About(
                        account.routingNumber(), account.accountNumber(), account.currency(), file.madeOn, file.serial),
                Sums.none(account.currency()),
                none -> {});
    }

    /** An event in its place of a file, as the payment says it now. */
    private record Placed(int position, long event, BankFile.Item item) {}

    private List<Placed> placed(long file, int from) {
        return placed("x.position >= :from AND x.position < :until")
                .param("file", file)
                .param("from", from)
                .param("until", from + AT_ONCE)
                .query((r, n) -> placed(r))
                .list();
    }

    private List<Placed> placed(long file, BatchId batch) {
        return placed("e.batch_id = :batch")
                .param("file", file)
                .param("batch", batch.value())
                .query((r, n) -> placed(r))
                .list();
    }

    private JdbcClient.StatementSpec placed(String which) {
        return jdbc.sql("""
                SELECT x.position, e.id, e.kind, n.number, CONCAT(s.prefix, n.number) AS printed, p.amount_minor, p.currency, p.check_date,
                  CASE WHEN e.kind = 'ISSUE' THEN p.check_date ELSE e.event_date END AS event_date, p.payee
                FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id
                JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                JOIN payment p ON p.id = n.payment_id WHERE x.file_id = :file AND %s ORDER BY x.position
                """.formatted(which));
    }

    private static Placed placed(ResultSet r) throws SQLException {
        return new Placed(r.getInt("position"), r.getLong("id"), EventItem.of(r));
    }
}
