package leveltally.server.people;

import java.util.LinkedHashMap;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** The lists as each person arranged them, the same on whatever machine they sit down. */
@Service
class KeptLists {
    private static final int MOST = 60;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    KeptLists(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    @Transactional(readOnly = true)
    Map<String, Arrangement> of(Actor by) {
        by.mayDo(Deed.READ);
        Map<String, Arrangement> kept = new LinkedHashMap<>();
        jdbc.sql("SELECT list, arrangement FROM kept_list WHERE person_id = :me ORDER BY list")
                .param("me", by.person().value())
                .query(row -> {
                    kept.put(row.getString("list"), json.readValue(row.getString("arrangement"), Arrangement.class));
                });
        return kept;
    }

    /** What was kept last stands; how somebody looks at a list is no deed and leaves no trace in the trail. */
    @Transactional
    void keep(Actor by, String list, Arrangement arrangement) {
        by.mayDo(Deed.READ);
        if (!list.matches("[a-z][a-z-]{0,39}")) {
            throw Refusal.invalid("no-list", "There is no list of this name. Reload the page and arrange it again.");
        }
        int lists = jdbc.sql("SELECT COUNT(*) FROM kept_list WHERE person_id = :me AND list <> :list")
                .param("me", by.person().value())
                .param("list", list)
                .query(Integer.class)
                .single();
        if (lists >= MOST) {
            throw Refusal.invalid("too-many-lists", "No more than " + MOST + " arranged lists are kept for a person.");
        }
        jdbc.sql("""
                        INSERT INTO kept_list (person_id, list, arrangement) VALUES (:me, :list, :arrangement)
                        ON DUPLICATE KEY UPDATE arrangement = VALUES(arrangement)
                        """)
                .param("me", by.person().value())
                .param("list", list)
                .param("arrangement", json.writeValueAsString(arrangement))
                .update();
    }
}
