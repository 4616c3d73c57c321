package leveltally.server.direct;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What was typed for each claim of a batch of direct payments, and which day of which schedule it pays. */
@Component
class DirectEntries {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;

    DirectEntries(JdbcClient jdbc, JdbcTemplate plain) {
        this.jdbc = jdbc;
        this.plain = plain;
    }

    /** {@code vendor} is the number of the vendor it is of. */
    record Entry(
            String vendor,
            String said,
            @Nullable Long schedule,
            @Nullable LocalDate dueOn) {}

    Map<ClaimId, Entry> of(BatchId batch) {
        Map<ClaimId, Entry> entries = new HashMap<>();
        jdbc.sql("SELECT d.claim_id, c.vendor_number, d.said, d.schedule_id, d.due_on FROM direct_entry d"
                        + " JOIN claim c ON c.id = d.claim_id WHERE c.batch_id = :batch")
                .param("batch", batch.value())
                .query((ResultSet r) -> {
                    entries.put(
                            new ClaimId(r.getLong("claim_id")),
                            new Entry(
                                    r.getString("vendor_number"),
                                    r.getString("said"),
                                    r.getObject("schedule_id", Long.class),
                                    r.getObject("due_on", LocalDate.class)));
                });
        return entries;
    }

    void write(List<ClaimId> claims, List<DirectRow> rows) {
        List<Object[]> entries = new ArrayList<>();
        for (int i = 0; i < claims.size(); i++) {
            DirectRow row = rows.get(i);
            entries.add(new Object[] {claims.get(i).value(), row.said().strip(), row.schedule(), row.dueOn()});
        }
        plain.batchUpdate(
                "INSERT INTO direct_entry (claim_id, said, schedule_id, due_on) VALUES (?, ?, ?, ?)", entries);
    }
}
