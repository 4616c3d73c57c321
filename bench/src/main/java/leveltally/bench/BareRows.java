package leveltally.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** Rows of one batch, to be written again by nothing but batched inserts. */
final class BareRows {
    private static final int BATCH = 500;

    private final long batch;
    private final Map<String, List<Object[]>> rows = new LinkedHashMap<>();
    private final Map<String, String> inserts = new LinkedHashMap<>();

    BareRows(long batch) {
        this.batch = batch;
    }

    /** What it consists of as a draft. */
    static BareRows of(Connection root, long batch) throws SQLException {
        return new BareRows(batch)
                .with(root, "claim", "SELECT * FROM claim WHERE batch_id = ?")
                .with(
                        root,
                        "claim_line",
                        "SELECT l.* FROM claim_line l JOIN claim c ON c.id = l.claim_id WHERE c.batch_id = ?")
                .with(root, "reservation", "SELECT * FROM reservation WHERE batch_id = ?");
    }

    /** Rows of a table besides, by the batch. */
    BareRows with(Connection root, String table, String sql) throws SQLException {
        read(root, table, sql);
        return this;
    }

    List<Object[]> rows(String table) {
        return rows.get(table);
    }

    static Set<String> generated(Connection root, String table) throws SQLException {
        Set<String> names = new HashSet<>();
        try (PreparedStatement query = root.prepareStatement("SELECT column_name FROM information_schema.columns"
                + " WHERE table_schema = DATABASE() AND table_name = ? AND generation_expression <> ''")) {
            query.setString(1, table);
            try (ResultSet row = query.executeQuery()) {
                while (row.next()) {
                    names.add(row.getString(1));
                }
            }
        }
        return names;
    }

    private void read(Connection root, String table, String sql) throws SQLException {
        List<Object[]> found = new ArrayList<>();
        Set<String> generated = generated(root, table);
        try (PreparedStatement query = root.prepareStatement(sql)) {
            query.setLong(1, batch);
            try (ResultSet row = query.executeQuery()) {
                ResultSetMetaData meta = row.getMetaData();
                List<String> names = new ArrayList<>();
                List<Integer> places = new ArrayList<>();
                for (int i = 1; i <= meta.getColumnCount(); i++) {
                    if (!generated.contains(meta.getColumnName(i))) {
                        names.add(meta.getColumnName(i));
                        places.add(i);
                    }
                }
                inserts.put(
                        table,
                        "INSERT INTO " + table + " (" + String.join(", ", names) + ") VALUES ("
                                + names.stream().map(n -> "?").collect(Collectors.joining(", ")) + ")");
                while (row.next()) {
                    Object[] values = new Object[names.size()];
                    for (int i = 0; i < values.length; i++) {
                        values[i] = row.getObject(places.get(i));
                    }
                    found.add(values);
                }
            }
        }
        rows.put(table, found);
    }

    void remove(Connection root) throws SQLException {
        try (Statement sql = root.createStatement()) {
            sql.execute("DELETE FROM reservation WHERE batch_id = " + batch);
            sql.execute("DELETE l FROM claim_line l JOIN claim c ON c.id = l.claim_id WHERE c.batch_id = " + batch);
            sql.execute("DELETE FROM claim WHERE batch_id = " + batch);
        }
    }

    /** @return milliseconds for one transaction of batched inserts */
    double insert(Connection bare) throws SQLException {
        bare.setAutoCommit(false);
        long start = System.nanoTime();
        write(bare);
        bare.commit();
        double took = (System.nanoTime() - start) / 1e6;
        bare.setAutoCommit(true);
        return took;
    }

    /** The inserts alone, in the transaction there is. */
    void write(Connection in) throws SQLException {
        for (Map.Entry<String, List<Object[]>> table : rows.entrySet()) {
            batched(in, inserts.get(table.getKey()), table.getValue());
        }
    }

    /** One statement for many rows of values, so many at once as Hibernate sends. */
    static void batched(Connection in, String sql, List<Object[]> rows) throws SQLException {
        try (PreparedStatement statement = in.prepareStatement(sql)) {
            int waiting = 0;
            for (Object[] values : rows) {
                for (int i = 0; i < values.length; i++) {
                    statement.setObject(i + 1, values[i]);
                }
                statement.addBatch();
                if (++waiting % BATCH == 0) {
                    statement.executeBatch();
                }
            }
            statement.executeBatch();
        }
    }
}
