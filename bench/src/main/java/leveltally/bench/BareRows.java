package leveltally.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** The rows a batch consists of, to be written again by nothing but batched inserts. */
final class BareRows {
    private static final int BATCH = 500;

    private final long batch;
    private final Map<String, List<Object[]>> rows = new LinkedHashMap<>();
    private final Map<String, String> inserts = new LinkedHashMap<>();

    private BareRows(long batch) {
        this.batch = batch;
    }

    static BareRows of(Connection root, long batch) throws SQLException {
        BareRows all = new BareRows(batch);
        all.read(root, "claim", "SELECT * FROM claim WHERE batch_id = ?");
        all.read(
                root,
                "claim_line",
                "SELECT l.* FROM claim_line l JOIN claim c ON c.id = l.claim_id WHERE c.batch_id = ?");
        all.read(root, "reservation", "SELECT * FROM reservation WHERE batch_id = ?");
        return all;
    }

    private void read(Connection root, String table, String sql) throws SQLException {
        List<Object[]> found = new ArrayList<>();
        try (PreparedStatement query = root.prepareStatement(sql)) {
            query.setLong(1, batch);
            try (ResultSet row = query.executeQuery()) {
                ResultSetMetaData meta = row.getMetaData();
                List<String> names = new ArrayList<>();
                for (int i = 1; i <= meta.getColumnCount(); i++) {
                    names.add(meta.getColumnName(i));
                }
                inserts.put(
                        table,
                        "INSERT INTO " + table + " (" + String.join(", ", names) + ") VALUES ("
                                + names.stream().map(n -> "?").collect(Collectors.joining(", ")) + ")");
                while (row.next()) {
                    Object[] values = new Object[names.size()];
                    for (int i = 0; i < values.length; i++) {
                        values[i] = row.getObject(i + 1);
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
        for (Map.Entry<String, List<Object[]>> table : rows.entrySet()) {
            try (PreparedStatement insert = bare.prepareStatement(inserts.get(table.getKey()))) {
                int waiting = 0;
                for (Object[] values : table.getValue()) {
                    for (int i = 0; i < values.length; i++) {
                        insert.setObject(i + 1, values[i]);
                    }
                    insert.addBatch();
                    if (++waiting % BATCH == 0) {
                        insert.executeBatch();
                    }
                }
                insert.executeBatch();
            }
        }
        bare.commit();
        double took = (System.nanoTime() - start) / 1e6;
        bare.setAutoCommit(true);
        return took;
    }
}
