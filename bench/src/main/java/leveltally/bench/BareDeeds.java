package leveltally.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * What answering and posting wrote for one batch, taken back by the database's root and written again by nothing but batched
 * inserts and updates of the same rows in one transaction. The laws in the database hold for both.
 */
final class BareDeeds {
    private static final String OF_BATCH = " IN (SELECT id FROM payment WHERE batch_id = ?)";

    private final Connection root;
    private final Connection bare;
    private final long batch;

    BareDeeds(Connection root, Connection bare, long batch) {
        this.root = root;
        this.bare = bare;
        this.batch = batch;
    }

    /** Keeps what posting will change, so that it can be taken back. */
    void beforePosting() throws SQLException {
        run(
                "CREATE OR REPLACE TABLE bench_invoice AS SELECT i.id, i.open_minor, i.discount_taken_minor, i.at_par_minor,"
                        + " i.open_since FROM invoice i JOIN reservation r ON r.invoice_id = i.id WHERE r.batch_id = ?",
                "CREATE OR REPLACE TABLE bench_reservation AS SELECT * FROM reservation WHERE batch_id = ?",
                "CREATE OR REPLACE TABLE bench_payment AS SELECT * FROM payment WHERE batch_id = ?");
    }

    /** @return milliseconds */
    double answers() throws SQLException {
        BareRows events = new BareRows(batch)
                .with(
                        root,
                        "number_event",
                        "SELECT e.* FROM number_event e JOIN check_number n ON n.id = e.check_number_id"
                                + " WHERE e.to_state = 'PRINTED' AND n.payment_id" + OF_BATCH);
        List<Object[]> documents = values(
                "SELECT answer, answered_at, answered_by, version, id, version - 1 FROM document WHERE payment_id"
                        + OF_BATCH);
        List<Object[]> numbers =
                values("SELECT state, steps, version, id, version - 1 FROM check_number WHERE payment_id" + OF_BATCH);
        run("CREATE OR REPLACE TABLE bench_number AS SELECT * FROM check_number WHERE payment_id" + OF_BATCH);
        String columns = columns("check_number");
        run(
                "DELETE e FROM number_event e JOIN check_number n ON n.id = e.check_number_id"
                        + " WHERE e.to_state = 'PRINTED' AND n.payment_id" + OF_BATCH,
                "UPDATE document SET answer = NULL, answered_at = NULL, answered_by = NULL, version = version - 1"
                        + " WHERE payment_id" + OF_BATCH,
                "UPDATE bench_number SET state = 'TAKEN', steps = steps - 1, version = version - 1",
                "DELETE FROM check_number WHERE payment_id" + OF_BATCH,
                "INSERT INTO check_number (" + columns + ") SELECT " + columns + " FROM bench_number");
        bare.setAutoCommit(false);
        long start = System.nanoTime();
        BareRows.batched(
                bare,
                "UPDATE document SET answer = ?, answered_at = ?, answered_by = ?, version = ? WHERE id = ? AND version = ?",
                documents);
        BareRows.batched(
                bare,
                "UPDATE check_number SET state = ?, steps = ?, version = ? WHERE id = ? AND version = ?",
                numbers);
        events.write(bare);
        bare.commit();
        double took = (System.nanoTime() - start) / 1e6;
        bare.setAutoCommit(true);
        return took;
    }

    /** @return milliseconds */
    double posting() throws SQLException {
        BareRows written = new BareRows(batch)
                .with(
                        root,
                        "journal_line",
                        "SELECT l.* FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id WHERE e.batch_id = ?")
                .with(root, "journal_entry", "SELECT * FROM journal_entry WHERE batch_id = ?")
                .with(root, "settlement", "SELECT * FROM settlement WHERE batch_id = ?")
                .with(root, "bank_event", "SELECT * FROM bank_event WHERE batch_id = ?")
                .with(
                        root,
                        "payment_event",
                        "SELECT e.* FROM payment_event e WHERE e.to_state = 'OUTSTANDING' AND e.payment_id" + OF_BATCH);
        List<Object[]> payments = values("SELECT posted_entry_id, state, state_date, steps, version, id, version - 1"
                + " FROM payment WHERE batch_id = ?");
        List<Object[]> claims = values("SELECT id FROM claim WHERE batch_id = ?");
        String columns = columns("payment");
        run(
                "DELETE l FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id WHERE e.batch_id = ?",
                "DELETE FROM journal_entry WHERE batch_id = ?",
                "DELETE FROM settlement WHERE batch_id = ?",
                "DELETE FROM bank_event WHERE batch_id = ?",
                "DELETE FROM payment_event WHERE to_state = 'OUTSTANDING' AND payment_id" + OF_BATCH,
                "DELETE FROM payment WHERE batch_id = ?",
                "INSERT INTO payment (" + columns + ") SELECT " + columns + " FROM bench_payment",
                "INSERT INTO reservation SELECT * FROM bench_reservation",
                "UPDATE invoice i JOIN bench_invoice b ON b.id = i.id SET i.open_minor = b.open_minor,"
                        + " i.discount_taken_minor = b.discount_taken_minor, i.at_par_minor = b.at_par_minor,"
                        + " i.open_since = b.open_since");
        bare.setAutoCommit(false);
        long start = System.nanoTime();
        written.write(bare);
        BareRows.batched(
                bare,
                "UPDATE payment SET posted_entry_id = ?, state = ?, state_date = ?, steps = ?, version = ?"
                        + " WHERE id = ? AND version = ?",
                payments);
        BareRows.batched(bare, "DELETE FROM reservation WHERE claim_id = ?", claims);
        bare.commit();
        double took = (System.nanoTime() - start) / 1e6;
        bare.setAutoCommit(true);
        return took;
    }

    /** As root, whom no foreign key stops; each with the batch where it asks for one. */
    private void run(String... statements) throws SQLException {
        root.setAutoCommit(true);
        try (Statement session = root.createStatement()) {
            session.execute("SET FOREIGN_KEY_CHECKS = 0");
            for (String sql : statements) {
                try (PreparedStatement statement = root.prepareStatement(sql)) {
                    if (sql.contains("?")) {
                        statement.setLong(1, batch);
                    }
                    statement.execute();
                }
            }
            session.execute("SET FOREIGN_KEY_CHECKS = 1");
        }
    }

    private List<Object[]> values(String sql) throws SQLException {
        List<Object[]> rows = new ArrayList<>();
        try (PreparedStatement query = root.prepareStatement(sql)) {
            query.setLong(1, batch);
            try (ResultSet row = query.executeQuery()) {
                while (row.next()) {
                    Object[] values = new Object[row.getMetaData().getColumnCount()];
                    for (int i = 0; i < values.length; i++) {
                        values[i] = row.getObject(i + 1);
                    }
                    rows.add(values);
                }
            }
        }
        return rows;
    }

    private String columns(String table) throws SQLException {
        try (PreparedStatement query = root.prepareStatement("SELECT * FROM " + table + " LIMIT 0");
                ResultSet none = query.executeQuery()) {
            var generated = BareRows.generated(root, table);
            List<String> names = new ArrayList<>();
            for (int i = 1; i <= none.getMetaData().getColumnCount(); i++) {
                names.add(none.getMetaData().getColumnName(i));
            }
            return names.stream().filter(name -> !generated.contains(name)).collect(Collectors.joining(", "));
        }
    }
}
