package leveltally.server.people;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.Sha256;
import leveltally.core.people.PersonId;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Who is signed in, and from where. */
@Component
class Sessions {
    /** Where a session was begun from, kept with it. */
    static final String FROM = "from";

    private final FindByIndexNameSessionRepository<? extends Session> repository;
    private final JdbcClient jdbc;

    Sessions(FindByIndexNameSessionRepository<? extends Session> repository, JdbcClient jdbc) {
        this.repository = repository;
        this.jdbc = jdbc;
    }

    /**
     * One session.
     *
     * @param key names it without telling its secret
     */
    record Open(String key, Instant begun, Instant lastUsed, String from, boolean current) {}

    List<Open> of(PersonId person, @Nullable String current) {
        return found(person).stream()
                .map(session -> new Open(
                        key(session.getId()),
                        session.getCreationTime(),
                        session.getLastAccessedTime(),
                        String.valueOf(session.getAttributeOrDefault(FROM, "unknown")),
                        session.getId().equals(current)))
                .sorted(Comparator.comparing(Open::lastUsed).reversed())
                .toList();
    }

    /** How many sessions everybody has. */
    Map<Long, Integer> counts() {
        Map<Long, Integer> counts = new HashMap<>();
        jdbc.sql("SELECT PRINCIPAL_NAME, COUNT(*) AS items FROM SPRING_SESSION WHERE EXPIRY_TIME > :now"
                        + " AND PRINCIPAL_NAME IS NOT NULL GROUP BY PRINCIPAL_NAME")
                .param("now", System.currentTimeMillis())
                .query(r -> {
                    counts.put(r.getLong("PRINCIPAL_NAME"), r.getInt("items"));
                });
        return counts;
    }

    void end(PersonId person, String key) {
        Session session = found(person).stream()
                .filter(one -> key(one.getId()).equals(key))
                .findFirst()
                .orElseThrow(
                        () -> Refusal.notFound("no-session", "This session ended already. Look at the list again."));
        repository.deleteById(session.getId());
    }

    /** @param but a session that stays, such as one's own */
    void endAll(PersonId person, @Nullable String but) {
        found(person).stream().map(Session::getId).filter(id -> !id.equals(but)).forEach(repository::deleteById);
    }

    private Collection<? extends Session> found(PersonId person) {
        return repository.findByPrincipalName(String.valueOf(person.value())).values();
    }

    private static String key(String id) {
        return Sha256.hex(id).substring(0, 16);
    }
}
