package leveltally.server.audit;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads the trail: a page, one thing's part of it, or all of it row by row. */
@Component
class TrailRows {
    private static final int FETCHED_AT_ONCE = 1_000;
    private static final String ROWS = """
            SELECT a.sequence, a.at, a.person_id, COALESCE(p.name, CASE a.origin WHEN 'schedule' THEN 'Level Tally'
              ELSE 'nobody' END) AS who, a.origin, a.deed, a.subject, a.detail, a.previous_hash, a.hash
            FROM audit_record a LEFT JOIN person p ON p.id = a.person_id
            """;

    private final JdbcClient jdbc;

    TrailRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One record, with the name of who did it. */
    record Row(
            long sequence,
            Instant at,
            long personId,
            String person,
            String origin,
            String deed,
            String subject,
            String detail,
            String previousHash,
            String hash) {}

    /** What is looked for; null for anything. Days are those of the clock, in UTC. */
    record Filter(
            @Nullable Long person,
            @Nullable String deed,
            @Nullable String subject,
            @Nullable LocalDate from,
            @Nullable LocalDate until,
            @Nullable String text) {}

    /** The end of the trail: the hash to be kept outside, and how many records there are. */
    record Head(long records, String hash) {}

    /** @param before only records before this one; null for the newest */
    @Transactional(readOnly = true)
    List<Row> page(Filter filter, @Nullable Long before, int most) {
        Map<String, Object> params = new HashMap<>();
        String where = where(filter, params);
        if (before != null) {
            where += " AND a.sequence < :before";
            params.put("before", before);
        }
        params.put("most", most);
        return jdbc.sql(ROWS + where + " ORDER BY a.sequence DESC LIMIT :most")
                .params(params)
                .query((r, n) -> row(r))
                .list();
    }

    /** Hands every record found to a reader, oldest first, and answers the head of the same moment. */
    @Transactional(readOnly = true)
    public Head each(Filter filter, Consumer<Row> reader) {
        Head head = jdbc.sql("SELECT sequence, hash FROM audit_head")
                .query((r, n) -> new Head(r.getLong("sequence"), r.getString("hash")))
                .single();
        Map<String, Object> params = new HashMap<>();
        String where = where(filter, params);
        params.put("last", head.records());
        jdbc.sql(ROWS + where + " AND a.sequence <= :last ORDER BY a.sequence")
                .params(params)
                .withFetchSize(FETCHED_AT_ONCE)
                .query((ResultSet r) -> reader.accept(row(r)));
        return head;
    }

    /** What is kept under which name; each gives an id and what people call it. */
    private static final Map<String, String> CALLED = Map.of(
            "batch", "SELECT id, name FROM batch",
            "vendor", "SELECT id, name FROM vendor",
            "person", "SELECT id, name FROM person",
            "bank account", "SELECT id, name FROM bank_account",
            "ledger account", "SELECT id, CONCAT(code, ' ', name) AS name FROM ledger_account",
            "series", "SELECT id, CONCAT(account_name, ', ', way_name) AS name FROM series_of_account",
            "invoice", "SELECT id, reference AS name FROM invoice",
            "import", "SELECT id, file_name AS name FROM import_job");

    /** What things such as {@code batch 7} are called; at most one statement a kind, whatever their number. */
    @Transactional(readOnly = true)
    Map<String, String> names(Collection<String> things) {
        Map<String, String> names = new HashMap<>();
        CALLED.forEach((kind, sql) -> {
            List<Long> ids = things.stream()
                    .filter(subject -> subject.matches(kind + " \\d{1,18}"))
                    .map(subject -> Long.valueOf(subject.substring(kind.length() + 1)))
                    .distinct()
                    .toList();
            if (!ids.isEmpty()) {
                jdbc.sql(sql + " WHERE id IN (:ids)").param("ids", ids).query((ResultSet r) -> {
                    names.put(kind + " " + r.getLong("id"), r.getString("name"));
                });
            }
        });
        return names;
    }

    /** The deeds that were ever recorded, for a choice. */
    @Transactional(readOnly = true)
    List<String> deeds() {
        return jdbc.sql("SELECT DISTINCT deed FROM audit_record ORDER BY deed")
                .query(String.class)
                .list();
    }

    private static String where(Filter filter, Map<String, Object> params) {
        StringBuilder where = new StringBuilder(" WHERE 1 = 1");
        and(where, params, " AND a.person_id = :person", "person", filter.person());
        and(where, params, " AND a.deed = :deed", "deed", filter.deed());
        and(where, params, " AND a.subject = :subject", "subject", filter.subject());
        LocalDate from = filter.from();
        LocalDate until = filter.until();
        and(where, params, " AND a.at >= :from", "from", from == null ? null : start(from));
        and(where, params, " AND a.at < :until", "until", until == null ? null : start(until.plusDays(1)));
        String text = filter.text();
        and(
                where,
                params,
                " AND CONCAT(a.deed, ' ', a.subject, ' ', a.detail) LIKE :text",
                "text",
                text == null || text.isBlank()
                        ? null
                        : "%"
                                + text.strip()
                                        .replace("\\", "\\\\")
                                        .replace("%", "\\%")
                                        .replace("_", "\\_") + "%");
        return where.toString();
    }

    private static void and(
            StringBuilder where, Map<String, Object> params, String sql, String name, @Nullable Object value) {
        if (value != null && !value.equals("")) {
            where.append(sql);
            params.put(name, value);
        }
    }

    private static java.sql.Timestamp start(LocalDate day) {
        return java.sql.Timestamp.from(day.atStartOfDay(ZoneOffset.UTC).toInstant());
    }

    private static Row row(ResultSet r) throws SQLException {
        return new Row(
                r.getLong("sequence"),
                r.getTimestamp("at").toInstant(),
                r.getLong("person_id"),
                r.getString("who"),
                r.getString("origin"),
                r.getString("deed"),
                r.getString("subject"),
                r.getString("detail"),
                r.getString("previous_hash"),
                r.getString("hash"));
    }
}
