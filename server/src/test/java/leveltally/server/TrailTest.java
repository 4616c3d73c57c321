package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import leveltally.core.audit.AuditRecord;
import leveltally.core.batches.BatchId;
import leveltally.core.proof.Law;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The trail read, taken away, and broken in every way. */
class TrailTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http PRIYA = Http.signedIn("priya");

    private static String head() {
        return App.jdbc().sql("SELECT hash FROM audit_head").query(String.class).single();
    }

    @Test
    void saysWhoWhenFromWhereBeforeAndAfter() {
        BatchId batch = App.draft(App.invoice("Bollard Foundry", "41.59"), App.invoice("Pelorus Charts", "41.61"));
        App.bean(Drafting.class)
                .takeOut(App.tomas(), batch, App.version(batch), java.util.Set.of(App.invoiceOf(batch)));
        App.bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
        JsonNode trail = JSON.readTree(Http.signedIn("maren")
                .get("/api/trail/of?subject=batch%20" + batch.value())
                .body());
        assertThat(trail.valueStream().map(one -> one.get("deed").asString()))
                .containsExactly("withdraw batch", "change batch", "make batch");
        JsonNode change = trail.get(1);
        assertThat(change.get("who").asString()).isEqualTo("Tomas Brandt");
        assertThat(change.get("from").asString()).isEqualTo("test");
        assertThat(change.get("name").asString()).isEqualTo("Test batch");
        assertThat(change.get("facts")
                        .valueStream()
                        .map(fact -> fact.get("name").asString() + " "
                                + fact.get("value").asString()))
                .contains("before 83.20 USD", "after 41.61 USD");
    }

    @Test
    void filtersAndPages() {
        JsonNode first = JSON.readTree(PRIYA.get("/api/trail?deed=make%20batch").body());
        assertThat(first.valueStream().map(one -> one.get("deed").asString()).distinct())
                .containsExactly("make batch");
        JsonNode all = JSON.readTree(PRIYA.get("/api/trail").body());
        assertThat(all).hasSize(100);
        long last = all.get(99).get("sequence").asLong();
        JsonNode next = JSON.readTree(PRIYA.get("/api/trail?before=" + last).body());
        assertThat(next.get(0).get("sequence").asLong()).isEqualTo(last - 1);
        assertThat(JSON.readTree(PRIYA.get("/api/trail?until=2000-01-01").body()))
                .isEmpty();
        assertThat(JSON.readTree(
                        PRIYA.get("/api/trail?text=%25nothing_like_that").body()))
                .isEmpty();
        assertThat(PRIYA.get("/api/trail/of?subject=person%201").status()).isEqualTo(404);
    }

    /** Whoever has the file alone can reckon the chain again, up to the head in its last line. */
    @Test
    void jsonLinesCarryTheWholeChainAndItsHead() {
        List<String> lines = PRIYA.get("/api/trail/jsonl").body().lines().toList();
        String before = AuditRecord.ORIGIN;
        for (String line : lines.subList(0, lines.size() - 1)) {
            JsonNode one = JSON.readTree(line);
            AuditRecord record = new AuditRecord(
                    one.get("sequence").asLong(),
                    Instant.parse(one.get("at").asString()),
                    one.get("person").asLong(),
                    one.get("from").asString(),
                    one.get("deed").asString(),
                    one.get("subject").asString(),
                    one.get("detail").asString(),
                    before);
            assertThat(one.get("hash").asString()).isEqualTo(record.hash());
            before = record.hash();
        }
        JsonNode end = JSON.readTree(lines.get(lines.size() - 1));
        assertThat(end.get("head").asString()).isEqualTo(before);
        assertThat(end.get("records").asLong()).isEqualTo(lines.size() - 1);
    }

    @Test
    void csvEndsWithTheHeadAndRunsInNoSpreadsheet() {
        List<String> lines =
                PRIYA.get("/api/trail/csv?deed=make%20batch").body().lines().toList();
        assertThat(lines.get(0)).contains("sequence,at,person,who,from,deed,subject,detail,previous_hash,hash");
        assertThat(lines.get(1)).contains("make batch");
        assertThat(lines.get(lines.size() - 1)).contains("head of the trail").endsWith(head());
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "altered | UPDATE audit_record SET detail = '{}' WHERE sequence = 55 AND detail <> '{}'",
                "removed | DELETE FROM audit_record WHERE sequence = 55",
                "inserted | INSERT INTO audit_record SELECT 1000000, at, person_id, origin, deed, subject, detail, REPEAT('a', 64), REPEAT('b', 64)"
                        + " FROM audit_record WHERE sequence = 55"
            })
    void theProofFindsARecordThatWas(String what, String sql) throws SQLException {
        try (Connection root = App.DATABASE.root("leveltally")) {
            root.createStatement()
                    .execute("CREATE TEMPORARY TABLE kept AS SELECT * FROM audit_record WHERE sequence = 55");
            assertThat(root.createStatement().executeUpdate(sql)).isOne();
            try {
                assertThat(App.bean(Proof.class).run().laws())
                        .filteredOn(checked -> checked.law() == Law.L10)
                        .singleElement()
                        .satisfies(checked -> assertThat(checked.findings()).isNotEmpty());
            } finally {
                root.createStatement().executeUpdate("DELETE FROM audit_record WHERE sequence IN (55, 1000000)");
                root.createStatement().executeUpdate("INSERT INTO audit_record SELECT * FROM kept");
            }
        }
        assertThat(App.bean(Proof.class).run().isClean()).isTrue();
    }

    /** Cut off with its head set back the trail looks whole; only the head kept outside tells. */
    @Test
    void aHeadKeptOutsideFindsACutOffEnd() throws SQLException {
        Proof proof = App.bean(Proof.class);
        String kept = head();
        assertThat(proof.against(kept).found()).isTrue();
        try (Connection root = App.DATABASE.root("leveltally")) {
            root.createStatement()
                    .execute("CREATE TEMPORARY TABLE cut AS SELECT * FROM audit_record ORDER BY sequence DESC LIMIT 3");
            root.createStatement().execute("CREATE TEMPORARY TABLE old_head AS SELECT * FROM audit_head");
            root.createStatement().executeUpdate("DELETE FROM audit_record ORDER BY sequence DESC LIMIT 3");
            root.createStatement()
                    .executeUpdate("UPDATE audit_head SET sequence = (SELECT MAX(sequence) FROM audit_record), hash ="
                            + " (SELECT hash FROM audit_record ORDER BY sequence DESC LIMIT 1)");
            try {
                assertThat(proof.run().isClean()).isTrue();
                assertThat(proof.against(kept).found()).isFalse();
                assertThat(PRIYA.get("/api/proof/head?hash=" + kept).body()).contains("cut off before it");
            } finally {
                root.createStatement().executeUpdate("INSERT INTO audit_record SELECT * FROM cut");
                root.createStatement()
                        .executeUpdate(
                                "UPDATE audit_head h JOIN old_head o ON o.id = h.id SET h.sequence = o.sequence, h.hash = o.hash");
            }
        }
        assertThat(proof.against(kept).since()).isZero();
        assertThatThrownBy(() -> proof.against("abc")).hasMessageContaining("64 digits");
    }
}
