package leveltally.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** The triggers of a database as they stood, to be made again after rows were loaded without them. */
final class TriggersAside {
    private final Map<String, String> made = new LinkedHashMap<>();

    private TriggersAside() {}

    static TriggersAside of(Connection root) throws SQLException {
        TriggersAside aside = new TriggersAside();
        try (Statement sql = root.createStatement();
                ResultSet row = sql.executeQuery(
                        "SELECT trigger_name, action_timing, event_manipulation, event_object_table, action_statement"
                                + " FROM information_schema.triggers WHERE trigger_schema = DATABASE()"
                                + " ORDER BY event_object_table, action_timing, event_manipulation, action_order")) {
            while (row.next()) {
                aside.made.put(
                        row.getString(1),
                        "CREATE TRIGGER " + row.getString(1) + " " + row.getString(2) + " " + row.getString(3) + " ON "
                                + row.getString(4) + " FOR EACH ROW " + row.getString(5));
            }
        }
        return aside;
    }

    /** Makes those again that are there no more. */
    void putBack(Connection root) throws SQLException {
        Set<String> there = new TreeSet<>(of(root).made.keySet());
        try (Statement sql = root.createStatement()) {
            for (Map.Entry<String, String> one : made.entrySet()) {
                if (!there.contains(one.getKey())) {
                    sql.execute(one.getValue());
                }
            }
        }
    }
}
