package leveltally.server.imports;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import leveltally.core.people.PersonId;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Whose hand works on a file. A lease runs by the database's clock and has a token that every update names, so that a
 * process that fell silent and comes back can change nothing any more.
 */
@Component
class ImportLeases {
    private static final int SILENT_SECONDS = 30;
    private static final int MOST_TRIES = 3;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    ImportLeases(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** A file this process works on. */
    record Job(
            long id,
            ImportKind kind,
            ImportState state,
            PersonId sender,
            PersonId wantedBy,
            Choices choices,
            LocalDate day,
            String token) {}

    /** Somebody else works on the file by now. */
    static final class Lost extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    /**
     * Takes the waiting file that was served longest ago, or one whose process fell silent; at the fourth try it is given up.
     *
     * @param largest in bytes, so that small files need not wait behind large ones
     */
    @Transactional
    Optional<Job> take(long largest) {
        List<Long> waiting = jdbc.sql("""
                        SELECT id FROM import_job
                        WHERE state IN (:running) AND (lease_until IS NULL OR lease_until < NOW(6)) AND bytes <= :largest
                        ORDER BY served_at, id LIMIT 1 FOR UPDATE SKIP LOCKED
                        """)
                .param("running", List.of("RECEIVED", "CHECKING", "WANTED", "BRINGING"))
                .param("largest", largest)
                .query(Long.class)
                .list();
        if (waiting.isEmpty()) {
            return Optional.empty();
        }
        String token = UUID.randomUUID().toString();
        jdbc.sql("""
                        UPDATE import_job SET lease_token = :token, lease_until = NOW(6) + INTERVAL :seconds SECOND,
                          tries = tries + 1, served_at = NOW(6), version = version + 1,
                          state = CASE WHEN state IN ('RECEIVED', 'CHECKING') THEN 'CHECKING' ELSE 'BRINGING' END
                        WHERE id = :id
                        """)
                .param("token", token)
                .param("seconds", SILENT_SECONDS)
                .param("id", waiting.get(0))
                .update();
        record Taken(Job job, int tries, String trouble) {}
        Taken taken = jdbc.sql("""
                        SELECT id, kind, state, person_id, COALESCE(wanted_by, person_id) AS wanted_by, choices, business_date, tries,
                          COALESCE(trouble, '') AS trouble FROM import_job WHERE id = :id
                        """)
                .param("id", waiting.get(0))
                .query((r, n) -> new Taken(
                        new Job(
                                r.getLong("id"),
                                ImportKind.valueOf(r.getString("kind")),
                                ImportState.valueOf(r.getString("state")),
                                new PersonId(r.getLong("person_id")),
                                new PersonId(r.getLong("wanted_by")),
                                json.readValue(r.getString("choices"), Choices.class),
                                r.getObject("business_date", LocalDate.class),
                                token),
                        r.getInt("tries"),
                        r.getString("trouble")))
                .single();
        if (taken.tries() > MOST_TRIES) {
            String why = taken.trouble().isEmpty() ? "each time the work on it broke off" : taken.trouble();
            end(taken.job(), ImportState.FAILED, "Given up after " + MOST_TRIES + " tries: " + why);
            return Optional.empty();
        }
        return Optional.of(taken.job());
    }

    /** Counts what was done in the caller's transaction, and holds on for another while. */
    void count(Job job, int read, int good, int refused, int duplicates, int broughtIn) {
        held(jdbc.sql("""
                        UPDATE import_job SET rows_read = rows_read + :read, good = good + :good,
                          refused = refused + :refused, duplicates = duplicates + :duplicates,
                          brought_in = brought_in + :in, lease_until = NOW(6) + INTERVAL :seconds SECOND,
                          tries = CASE WHEN :in > 0 THEN 0 ELSE tries END, version = version + 1 WHERE id = :id AND lease_token = :token
                        """)
                .param("read", read)
                .param("good", good)
                .param("refused", refused)
                .param("duplicates", duplicates)
                .param("in", broughtIn)
                .param("seconds", SILENT_SECONDS)
                .param("id", job.id())
                .param("token", job.token())
                .update());
    }

    /** Begins counting anew. */
    void restart(Job job) {
        held(jdbc.sql("UPDATE import_job SET rows_read = 0, good = 0, refused = 0, duplicates = 0, brought_in = 0,"
                        + " version = version + 1 WHERE id = :id AND lease_token = :token")
                .param("id", job.id())
                .param("token", job.token())
                .update());
    }

    void headers(Job job, List<String> headers) {
        held(jdbc.sql("UPDATE import_job SET headers = :headers WHERE id = :id AND lease_token = :token")
                .param("headers", json.writeValueAsString(headers))
                .param("id", job.id())
                .param("token", job.token())
                .update());
    }

    /** Lets others have their turn; the work goes on later. */
    @Transactional
    void release(Job job) {
        held(jdbc.sql("UPDATE import_job SET lease_until = NULL, tries = 0, served_at = NOW(6)"
                        + " WHERE id = :id AND lease_token = :token")
                .param("id", job.id())
                .param("token", job.token())
                .update());
    }

    /** Broke off: it is tried again, and the reason is kept for the case that it is given up. */
    @Transactional
    void failed(Job job, String trouble) {
        jdbc.sql(
                        "UPDATE import_job SET lease_until = NOW(6) + INTERVAL 5 SECOND, served_at = NOW(6), trouble = :trouble"
                                + " WHERE id = :id AND lease_token = :token")
                .param("trouble", shortened(trouble))
                .param("id", job.id())
                .param("token", job.token())
                .update();
    }

    @Transactional
    void end(Job job, ImportState state, @Nullable String trouble) {
        held(jdbc.sql(
                        "UPDATE import_job SET state = :state, trouble = :trouble, lease_until = NULL, lease_token = NULL,"
                                + " tries = 0, version = version + 1 WHERE id = :id AND lease_token = :token")
                .param("state", state.name())
                .param("trouble", trouble == null ? null : shortened(trouble))
                .param("id", job.id())
                .param("token", job.token())
                .update());
    }

    private static void held(int updated) {
        if (updated == 0) {
            throw new Lost();
        }
    }

    private static String shortened(String trouble) {
        return trouble.substring(0, Math.min(500, trouble.length()));
    }
}
