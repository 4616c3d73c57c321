package leveltally.server.proof;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.audit.AuditChain;
import leveltally.core.audit.AuditRecord;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.proof.Law;
import leveltally.server.bankfiles.FileTruth;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.electronic.FiledTruth;
import leveltally.server.frame.Patience;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Checks every law on the live data, from the rows themselves and not from what the services believe. */
@Service
public class Proof {
    private static final int MOST_FINDINGS = 20;

    private final JdbcClient jdbc;
    private final FileTruth files;
    private final FiledTruth filed;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final EntityManager entities;
    private final Patience patience;

    Proof(
            JdbcClient jdbc,
            FileTruth files,
            FiledTruth filed,
            Batches batches,
            ClaimRows claimRows,
            EntityManager entities,
            Patience patience) {
        this.patience = patience;
        this.jdbc = jdbc;
        this.files = files;
        this.filed = filed;
        this.batches = batches;
        this.claimRows = claimRows;
        this.entities = entities;
    }

    /** What was looked at for one law, and every breach of it in words, at most twenty. */
    public record Checked(Law law, String looked, List<String> findings) {}

    /** @param head the hash of the last audit record, to be kept outside */
    public record Report(List<Checked> laws, String head, long records) {
        public boolean isClean() {
            return laws.stream().allMatch(law -> law.findings().isEmpty());
        }
    }

    /** What became of a head that was kept outside, and how many records followed it. */
    public record KeptHead(boolean found, long sequence, long since, List<String> findings) {}

    /**
     * Walks the trail and looks for a head hash that was kept outside: only that shows when its end was cut off and its head
     * was set back as well.
     *
     * @param kept 64 hex digits, as the proof and the exports print them
     */
    @Transactional(readOnly = true)
    public KeptHead against(String kept) {
        String hash = kept.strip().toLowerCase(Locale.ROOT);
        if (!hash.matches("[0-9a-f]{64}")) {
            throw Refusal.invalidField(
                    "no-hash",
                    "hash",
                    "A head hash has 64 digits and letters a to f. Copy it whole from where you kept it.");
        }
        patience.forWholeTables();
        AuditChain chain = new AuditChain();
        Checked checked = audit(chain);
        return jdbc.sql("SELECT sequence FROM audit_record WHERE hash = ?")
                .param(hash)
                .query(Long.class)
                .optional()
                .map(at -> new KeptHead(true, at, chain.length() - at, checked.findings()))
                .orElseGet(() -> new KeptHead(false, 0, 0, checked.findings()));
    }

    @Transactional(readOnly = true)
    public Report run() {
        patience.forWholeTables();
        Map<Law, Checked> laws = new EnumMap<>(Law.class);
        LawQueries.ALL.forEach((law, queries) -> {
            List<String> findings = new ArrayList<>();
            queries.breaches()
                    .forEach(sql -> findings.addAll(jdbc.sql(sql + " LIMIT " + MOST_FINDINGS)
                            .query(String.class)
                            .list()));
            laws.put(
                    law,
                    new Checked(
                            law, jdbc.sql(queries.looked()).query(String.class).single(), findings));
        });
        laws.get(Law.L5).findings().addAll(files.untrueRecords());
        laws.get(Law.L12).findings().addAll(filed.untrue());
        laws.get(Law.L6).findings().addAll(alteredContent());
        AuditChain chain = new AuditChain();
        laws.put(Law.L10, audit(chain));
        return new Report(new ArrayList<>(laws.values()), chain.head(), chain.length());
    }

    /** Reckons the digest of every claim that left its batch anew (law L6). */
    private List<String> alteredContent() {
        List<String> findings = new ArrayList<>();
        List<Long> ids = jdbc.sql("SELECT DISTINCT batch_id FROM payment")
                .query(Long.class)
                .list();
        for (long id : ids) {
            Batch batch = batches.get(new BatchId(id));
            var digests = claimRows.digests(batch.id());
            List<Claim> claims;
            try {
                claims = claimRows.of(batch.id());
            } catch (IllegalArgumentException broken) {
                findings.add("Batch " + id + " cannot be read any more: " + broken.getMessage());
                continue;
            }
            for (Claim claim : claims) {
                String digest = ClaimDigest.of(claim, batch.checkDate(), batch.account(), batch.method())
                        .hex();
                if (!digest.equals(digests.get(claim.id()))) {
                    findings.add("Batch " + id + ": the payment to "
                            + claim.remitTo().payee() + " is not what its digest says");
                }
            }
            entities.clear();
        }
        return findings;
    }

    private Checked audit(AuditChain chain) {
        List<String> findings = new ArrayList<>();
        try (var rows = jdbc
                .sql("SELECT sequence, at, person_id, origin, deed, subject, detail, previous_hash, hash"
                        + " FROM audit_record ORDER BY sequence")
                .withFetchSize(1_000)
                .query((r, n) -> {
                    AuditRecord record = new AuditRecord(
                            r.getLong("sequence"),
                            r.getTimestamp("at").toInstant(),
                            r.getLong("person_id"),
                            r.getString("origin"),
                            r.getString("deed"),
                            r.getString("subject"),
                            r.getString("detail"),
                            r.getString("previous_hash"));
                    return Map.entry(record, r.getString("hash"));
                })
                .stream()) {
            rows.forEach(row -> chain.follow(row.getKey(), row.getValue()).ifPresent(findings::add));
        }
        String head =
                jdbc.sql("SELECT hash FROM audit_head").query(String.class).single();
        if (!head.equals(chain.head())) {
            findings.add("the trail ends before its head: records at the end are missing");
        }
        List<String> shown = findings.subList(0, Math.min(MOST_FINDINGS, findings.size()));
        return new Checked(Law.L10, chain.length() + " records", List.copyOf(shown));
    }
}
