package leveltally.server.imports;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.imports.Finding;
import leveltally.core.vendors.SenderIdentifier;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The rows of a file between its check and the ledger. */
@Component
class StagedRows {
    private final JdbcClient jdbc;
    private final JdbcTemplate batch;
    private final JsonMapper json;

    StagedRows(JdbcClient jdbc, JdbcTemplate batch, JsonMapper json) {
        this.jdbc = jdbc;
        this.batch = batch;
        this.json = json;
    }

    /** What a row has come to. */
    enum Outcome {
        GOOD,
        REFUSED,
        DUPLICATE,
        IN
    }

    /**
     * One row.
     *
     * @param line counts all rows of the file; {@code place} says where it stands, in words
     * @param amount as it was read; empty where it was not
     */
    record Staged(
            int line,
            String place,
            Outcome outcome,
            String column,
            String reason,
            String identity,
            String amount,
            String content) {

        Staged as(Outcome other, String otherColumn, String why) {
            return new Staged(line, place, other, otherColumn, why, identity, amount, content);
        }
    }

    Staged good(int line, String place, String identity, String amount, Map<String, String> cells) {
        return new Staged(
                line, place, Outcome.GOOD, "", "", cut(identity, 120), amount, json.writeValueAsString(cells));
    }

    static Staged refused(int line, String place, String identity, List<Finding> findings) {
        String reason =
                findings.stream().map(f -> f.column() + ": " + f.reason()).collect(Collectors.joining("; "));
        return new Staged(
                line, place, Outcome.REFUSED, findings.get(0).column(), cut(reason, 300), cut(identity, 120), "", "{}");
    }

    private static String cut(String text, int longest) {
        return text.substring(0, Math.min(longest, text.length()));
    }

    void clear(long job) {
        for (String table : List.of("import_row", "import_party")) {
            jdbc.sql("DELETE FROM " + table + " WHERE job_id = :job")
                    .param("job", job)
                    .update();
        }
    }

    void write(long job, List<Staged> rows) {
        batch.batchUpdate(
                "INSERT INTO import_row (job_id, line, place, outcome, column_name, reason, identity, amount, content)"
                        + " VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                rows.stream()
                        .map(row -> new Object[] {
                            job,
                            row.line(),
                            row.place(),
                            row.outcome().name(),
                            row.column(),
                            row.reason(),
                            row.identity(),
                            row.amount(),
                            row.content()
                        })
                        .toList());
    }

    void outcome(long job, List<Staged> rows) {
        batch.batchUpdate(
                "UPDATE import_row SET outcome = ?, column_name = ?, reason = ? WHERE job_id = ? AND line = ?",
                rows.stream()
                        .map(row -> new Object[] {
                            row.outcome().name(), row.column(), cut(row.reason(), 300), job, row.line()
                        })
                        .toList());
    }

    /** Puts the rows of each document together under its first line; one statement. */
    void gather(long job) {
        jdbc.sql("""
                        UPDATE import_row r JOIN (
                          SELECT identity, MIN(line) AS first FROM import_row WHERE job_id = :job AND identity <> ''
                          GROUP BY identity) d ON d.identity = r.identity
                        SET r.first_line = d.first WHERE r.job_id = :job
                        """).param("job", job).update();
        jdbc.sql("UPDATE import_row SET first_line = line WHERE job_id = :job AND first_line IS NULL")
                .param("job", job)
                .update();
    }

    /** All rows of one document that were asked for; {@code firstLine} names it. */
    record Document(int firstLine, List<Staged> rows) {
        String identity() {
            return rows.get(0).identity();
        }
    }

    /** Documents after one, each with all its rows of these outcomes, about so many rows in all. */
    List<Document> documents(long job, List<Outcome> outcomes, int after, int most) {
        List<String> names = outcomes.stream().map(Enum::name).toList();
        int last = jdbc.sql("""
                        SELECT COALESCE(MAX(first_line), -1) FROM (
                          SELECT first_line, SUM(COUNT(*)) OVER (ORDER BY first_line) - COUNT(*) AS before_it
                          FROM import_row WHERE job_id = :job AND outcome IN (:outcomes) AND first_line > :after
                            AND first_line <= COALESCE((
                              SELECT first_line FROM import_row
                              WHERE job_id = :job AND outcome IN (:outcomes) AND first_line > :after
                              ORDER BY first_line LIMIT 1 OFFSET :most), 2147483647)
                          GROUP BY first_line) d
                        WHERE before_it < :most
                        """)
                .param("job", job)
                .param("outcomes", names)
                .param("after", after)
                .param("most", most)
                .query(Integer.class)
                .single();
        if (last < 0) {
            return List.of();
        }
        List<Document> documents = new ArrayList<>();
        jdbc.sql("""
                        SELECT line, place, outcome, column_name, reason, identity, amount, content, first_line
                        FROM import_row WHERE job_id = :job AND outcome IN (:outcomes) AND first_line > :after
                          AND first_line <= :last ORDER BY first_line, line
                        """)
                .param("job", job)
                .param("outcomes", names)
                .param("after", after)
                .param("last", last)
                .query((java.sql.ResultSet r) -> {
                    int first = r.getInt("first_line");
                    if (documents.isEmpty()
                            || documents.get(documents.size() - 1).firstLine() != first) {
                        documents.add(new Document(first, new ArrayList<>()));
                    }
                    documents
                            .get(documents.size() - 1)
                            .rows()
                            .add(new Staged(
                                    r.getInt("line"),
                                    r.getString("place"),
                                    Outcome.valueOf(r.getString("outcome")),
                                    r.getString("column_name"),
                                    r.getString("reason"),
                                    r.getString("identity"),
                                    r.getString("amount"),
                                    r.getString("content")));
                });
        return documents;
    }

    Map<String, String> cells(Staged row) {
        Map<String, String> cells = new HashMap<>();
        json.readTree(row.content())
                .properties()
                .forEach(entry -> cells.put(entry.getKey(), entry.getValue().asString()));
        return cells;
    }

    /** A sender of one file that nobody knows. */
    record Unknown(int position, UblParty party, int documents) {}

    void unknown(long job, Unknown sender) {
        jdbc.sql("INSERT INTO import_party (job_id, position, name, identifiers, documents)"
                        + " VALUES (:job, :position, :name, :identifiers, :documents)")
                .param("job", job)
                .param("position", sender.position())
                .param("name", sender.party().name())
                .param("identifiers", json.writeValueAsString(sender.party().identifiers()))
                .param("documents", sender.documents())
                .update();
    }

    List<Unknown> unknown(long job) {
        return jdbc.sql("SELECT position, name, identifiers, documents FROM import_party WHERE job_id = :job"
                        + " ORDER BY position LIMIT 200")
                .param("job", job)
                .query((r, n) -> new Unknown(
                        r.getInt("position"),
                        new UblParty(
                                r.getString("name"),
                                List.of(json.readValue(r.getString("identifiers"), SenderIdentifier[].class))),
                        r.getInt("documents")))
                .list();
    }

    @Nullable
    Unknown unknown(long job, int position) {
        return unknown(job).stream()
                .filter(one -> one.position() == position)
                .findFirst()
                .orElse(null);
    }
}
